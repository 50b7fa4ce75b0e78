import Database from 'better-sqlite3';
import { parentPort } from 'node:worker_threads';
import { lookInto } from './backup';
import type { Looking } from './looking';

/** The thread a backup is looked into: a large one takes seconds, and no other request waits for it. */
parentPort?.on('message', ({ n, file, at, token }: Looking & { n: number }) => {
  const db = new Database(file, { readonly: true });
  try {
    parentPort!.postMessage({ n, answer: lookInto(db, at, token) });
  } finally {
    db.close();
  }
});

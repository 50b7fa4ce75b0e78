import { existsSync } from 'node:fs';
import { Worker } from 'node:worker_threads';
import { lookInto, type Look } from './backup';
import { bundledFile } from './bundled-file';
import { database } from './database';
import { threadOf } from './thread';

/** A backup to look into, beside the file that is open here. */
export interface Looking {
  file: string;
  at: string;
  token: string;
}

/** The largest backup, from a slow disk, ms. */
const LOOK_MS = 120_000;
const FILE = bundledFile('backup-thread');
const looks = threadOf(() => new Worker(FILE));

/** What a backup holds, looked up beside everything else the server does; a sentence where it is none. */
export async function look(looking: Looking): Promise<Look | string> {
  if (!existsSync(FILE)) return lookInto(database(), looking.at, looking.token);
  return (await looks.ask<Look | string>(looking, LOOK_MS)) ?? 'This backup could not be looked into in two minutes.';
}

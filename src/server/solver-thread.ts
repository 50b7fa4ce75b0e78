import { setPriority } from 'node:os';
import { parentPort } from 'node:worker_threads';
import { readDesign } from '@/core/design/schema';
import { pictureOf } from '@/core/judge/picture';
import { answerTo, type Question } from './solver-answers';

/** How far solving stands back behind requests where cores are few. */
const GIVES_WAY = 10;

// Only there has a thread a priority of its own; elsewhere it would be the whole server's.
if (process.platform === 'linux') setPriority(GIVES_WAY);

/** The thread the server solves in: one question, one answer. */
parentPort?.on('message', (question: Question & { n: number }) => {
  parentPort!.postMessage({ n: question.n, answer: answerTo(question, { readDesign, pictureOf }) });
});

import { parentPort } from 'node:worker_threads';
import { readDesign } from '@/core/design/schema';
import { pictureOf } from '@/core/judge/picture';
import { answerTo, type Question } from './solver-answers';

/** The thread the server solves in: one question, one answer. */
parentPort?.on('message', (question: Question & { n: number }) => {
  parentPort!.postMessage({ n: question.n, answer: answerTo(question, { readDesign, pictureOf }) });
});

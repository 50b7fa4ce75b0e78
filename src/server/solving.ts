import { existsSync } from 'node:fs';
import { Worker } from 'node:worker_threads';
import { readDesign } from '@/core/design/schema';
import type { Design } from '@/core/design/design';
import { pictureOf } from '@/core/judge/picture';
import type { Picture } from '@/core/picture/picture';
import { bundledFile } from './bundled-file';
import type { DesignsStore, Summed } from './designs';
import { answerTo, type Question } from './solver-answers';
import { threadOf, type ThreadLike } from './thread';

const FILE = bundledFile('solver-thread');
/** A page waits no longer than this for its first picture: its window then solves it. */
const PICTURE_MS = 1500;
/** What takes longer than this to sum up is said to. */
const SUMMARY_MS = 8000;

/** Where the thread was never built, and under a test runner, the work is done here. */
function spawn(): ThreadLike {
  if (process.env.NODE_ENV !== 'test' && existsSync(FILE)) return new Worker(FILE);
  let tell: (message: { n: number; answer: unknown }) => void = () => {};
  return {
    on: (event: string, listener: never) => void (event === 'message' && (tell = listener)),
    postMessage: (question) => {
      const asked = question as Question & { n: number };
      setImmediate(() => tell({ n: asked.n, answer: answerTo(asked, { readDesign, pictureOf }) }));
    },
    terminate: () => {},
  };
}

// Lists are summed up in one thread and pages solved in another: neither waits for the other.
const pages = threadOf(spawn);
const lists = threadOf(spawn);

/** The first picture of a page, so that the terrace stands as soon as the page does; null when it is not to be had at once. */
export function firstPicture(design: Design): Promise<Picture | null> {
  return pages.ask<Picture>({ what: 'picture', design }, PICTURE_MS);
}

let summing = false;

/** Sums up, one after the other, what the shelf knows nothing or something old of. Returns at once. */
export function sumUp(designs: DesignsStore): void {
  if (summing) return;
  summing = true;
  void sumUpAll(designs).finally(() => (summing = false));
}

async function sumUpAll(designs: DesignsStore): Promise<void> {
  for (let next = designs.unsummed(); next; next = designs.unsummed()) {
    const { id, revision, document } = next;
    const found = await lists.ask<Summed>({ what: 'summary', document }, SUMMARY_MS);
    designs.keepSummary(id, revision, found ?? { headline: null, summary: null, fault: TOO_LONG });
  }
}

const TOO_LONG = 'Could not be summed up: solving it takes too long. Open it to see more.';

import { applyPatch, type Design, type FilterStep } from '@/core/design/design';
import { demoDesigns } from '@/core/design/demo-designs';
import { withBuiltServer } from './built-server';

/** What requests had to wait for, ms. */
export interface Waits {
  /** One list after the other, nobody else asking. */
  alone: { median: number; p99: number; most: number };
  /** The same while pages of a design are asked for that takes seconds to solve. */
  beside: { median: number; p99: number; most: number };
  /** How long that page itself took. */
  slowPage: number;
  requests: number;
}

/** How long each of both is looked at, ms. */
const LOOKED_MS = 4000;

/** Inside every border, and slow to solve: a filter of sixteen parts at ten hertz, with all of it solved warm. */
function slowDesign(): Design {
  const base = demoDesigns()[5]!;
  const steps = (n: number): FilterStep[] =>
    Array.from({ length: n }, (_, k): FilterStep =>
      k % 2 === 0
        ? { kind: 'choke', inductanceH: 20 / (k + 1), resistanceOhm: 0.5, ratedA: 2, swinging: true }
        : { kind: 'capacitor', capacitanceF: 0.02 / k, ratedV: 400 },
    );
  return applyPatch(base, {
    name: 'Slow to solve',
    mains: { frequencyHz: 10 },
    transformer: { ratedV: 300, ratedVA: 3000, leakageH: 0.01 },
    filter: { before: steps(8), after: steps(8) },
  });
}

/** Starts the built server on a file of its own and measures. @throws Error when it does not come up */
export function serverWaits(root: string): Promise<Waits> {
  return withBuiltServer(root, false, async (base) => {
    const made = await fetch(`${base}/api/designs`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: base },
      body: JSON.stringify(slowDesign()),
    });
    if (!made.ok) throw new Error(`the slow design was refused: ${await made.text()}`);
    const { id } = (await made.json()) as { id: string };
    // What is loaded with the first page of all is not the slow design's doing.
    const [other] = (await (await fetch(`${base}/api/designs`)).json()) as { id: string }[];
    for (let n = 0; n < 5 && other; n++) await timed(`${base}/design/${other.id}`);
    const list = () => timed(`${base}/api/designs`);
    for (let n = 0; n < 20; n++) await list();
    const alone = await during(list, () => Promise.resolve());
    let slowPage = 0;
    const beside = await during(list, async () => {
      slowPage = Math.max(slowPage, await timed(`${base}/design/${id}`));
    });
    return { alone: spread(alone), beside: spread(beside), slowPage, requests: beside.length };
  });
}

/** Times of one request after the other, with another kind going on beside it again and again. */
async function during(request: () => Promise<number>, beside: () => Promise<void>): Promise<number[]> {
  const until = performance.now() + LOOKED_MS;
  const times: number[] = [];
  const others = (async () => {
    while (performance.now() < until) {
      await beside();
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  })();
  while (performance.now() < until) times.push(await request());
  await others;
  return times;
}

async function timed(url: string): Promise<number> {
  const start = performance.now();
  const answer = await fetch(url);
  await answer.arrayBuffer();
  return performance.now() - start;
}

function spread(times: readonly number[]): Waits['alone'] {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
  return { median: at(0.5), p99: at(0.99), most: at(1) };
}

import { parentPort } from 'node:worker_threads';
import * as Comlink from 'comlink';
import nodeEndpoint from 'comlink/dist/umd/node-adapter.js';
import type { Design } from '@/core/design/design';
import type { SizingAsk } from '@/core/size/sized-set';
import { rehearsing, SizingShare } from '@/core/size/sizing-share';
import { solveVariations } from '@/core/study/variation';
import { batchSolver } from '@/workers/batch-solver';

const share = new SizingShare();
const solver = {
  variations: solveVariations,
  solveAsks: batchSolver.solveAsks,
  rehearse(design: Design) {
    for (const _step of rehearsing(design)) void _step;
  },
  planSizing: (design: Design, ask: SizingAsk) => share.plan(1, design, [], ask),
  sizeCircuits: (ns: readonly number[], failedKin: readonly string[]) => share.look(1, ns, failedKin),
};
export type ThreadSolver = typeof solver;

type Endpoint = Parameters<typeof Comlink.expose>[1];
const endpoint = nodeEndpoint as unknown as (port: NonNullable<typeof parentPort>) => Endpoint;
Comlink.expose(solver, endpoint(parentPort!));

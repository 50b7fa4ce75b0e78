import { parentPort } from 'node:worker_threads';
import * as Comlink from 'comlink';
import nodeEndpoint from 'comlink/dist/umd/node-adapter.js';
import { solveVariations } from '@/core/study/variation';

const solver = { variations: solveVariations };
export type VariationSolver = typeof solver;

type Endpoint = Parameters<typeof Comlink.expose>[1];
const endpoint = nodeEndpoint as unknown as (port: NonNullable<typeof parentPort>) => Endpoint;
Comlink.expose(solver, endpoint(parentPort!));

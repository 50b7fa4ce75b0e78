import { parentPort } from 'node:worker_threads';
import * as Comlink from 'comlink';
import nodeEndpoint from 'comlink/dist/umd/node-adapter.js';
import { atWork } from '@/workers/at-work';

type Endpoint = Parameters<typeof Comlink.expose>[1];
const endpoint = nodeEndpoint as unknown as (port: NonNullable<typeof parentPort>) => Endpoint;
Comlink.expose(atWork, endpoint(parentPort!));

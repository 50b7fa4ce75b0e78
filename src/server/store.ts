import { database } from './database';
import { demoDesigns } from './demo';
import { designStore } from './designs';

let shared: ReturnType<typeof designStore> | undefined;

/** The shelf of this process. With EMBER_RAIL_DEMO set, an empty one is filled with the demo designs first. */
export function store() {
  if (!shared) {
    shared = designStore(database());
    if (process.env['EMBER_RAIL_DEMO'] && shared.isEmpty()) {
      // Written a second apart so that the shelf keeps their order.
      demoDesigns().forEach((design, n) => shared!.create(design, new Date(Date.now() - n * 1000).toISOString()));
    }
  }
  return shared;
}

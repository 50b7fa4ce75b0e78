import { startingDrawer } from '@/core/drawer/starting';
import { database } from './database';
import { demoDesigns } from './demo';
import { demoDrawer } from './demo-drawer';
import { designStore } from './designs';
import { partStore } from './parts';

let designs: ReturnType<typeof designStore> | undefined;
let parts: ReturnType<typeof partStore> | undefined;

/** The shelf of this process. With EMBER_RAIL_DEMO set, an empty one is filled with the demo designs first. */
export function store() {
  if (!designs) {
    designs = designStore(database());
    if (process.env['EMBER_RAIL_DEMO'] && designs.isEmpty()) {
      // Written a second apart so that the shelf keeps their order.
      demoDesigns().forEach((design, n) => designs!.create(design, new Date(Date.now() - n * 1000).toISOString()));
    }
  }
  return designs;
}

/** The drawer of this process. An empty one begins with generic parts to order by; in a demo, with some salvaged ones. */
export function drawer() {
  if (!parts) {
    parts = partStore(database());
    if (parts.isEmpty()) {
      parts.addAll([...startingDrawer(), ...(process.env['EMBER_RAIL_DEMO'] ? demoDrawer() : [])]);
    }
  }
  return parts;
}

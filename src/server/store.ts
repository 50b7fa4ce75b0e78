import { startingDrawer } from '@/core/drawer/starting';
import { database, databaseFile, refuseReadOnly } from './database';
import { demoDesigns } from '@/core/design/demo-designs';
import { demoDrawer } from './demo-drawer';
import { fillDemoRecords } from './demo-records';
import { instrumentStore, type InstrumentStore } from './instruments/store';
import { designStore, type DesignsStore } from './designs';
import { partStore, type PartStore } from './parts';
import { photoStore, type PhotoStore } from './photos';
import { revisionStore, type RevisionStore } from './revisions';
import { sumUp } from './solving';

let designs: DesignsStore | undefined;
let parts: PartStore | undefined;
let kept: InstrumentStore | undefined;
let named: RevisionStore | undefined;
let pictures: PhotoStore | undefined;

/** Whether this process may write to its file. */
function writable(): boolean {
  try {
    refuseReadOnly();
    return true;
  } catch {
    return false;
  }
}

/** The shelf of this process. With EMBER_RAIL_DEMO set, an empty one is filled with the demo designs first. */
export function store(): DesignsStore {
  if (!designs) {
    designs = designStore(database());
    if (process.env['EMBER_RAIL_DEMO'] && writable()) {
      // Written a second apart so that the shelf keeps their order.
      const filled = designs.fillIfEmpty(
        demoDesigns().map((design, n) => ({ design, at: new Date(Date.now() - n * 1000).toISOString() })),
      );
      if (filled) {
        drawer();
        fillDemoRecords(database(), databaseFile(), designs);
      }
    }
  }
  // After what was asked for: a design saved now is summed up too.
  const shelf = designs;
  if (writable()) setImmediate(() => sumUp(shelf));
  return designs;
}

/** The drawer of this process. An empty one begins with generic parts to order by; in a demo, with some salvaged ones. */
export function drawer(): PartStore {
  if (!parts) {
    parts = partStore(database());
    if (writable())
      parts.fillIfEmpty(() => [...startingDrawer(), ...(process.env['EMBER_RAIL_DEMO'] ? demoDrawer() : [])]);
  }
  return parts;
}

/** The instruments of this process's file. */
export function instruments(): InstrumentStore {
  return (kept ??= instrumentStore(database()));
}

/** The named states of the designs of this process's file. */
export function revisions(): RevisionStore {
  return (named ??= revisionStore(database()));
}

/** The pictures of this process's file. */
export function photos(): PhotoStore {
  return (pictures ??= photoStore(database()));
}

/** After another file was put in the place of the old one. */
export function forgetStores(): void {
  designs = undefined;
  parts = undefined;
  kept = undefined;
  named = undefined;
  pictures = undefined;
}

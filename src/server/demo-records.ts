import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type Database from 'better-sqlite3';
import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { LAST_BACKUP, remember } from './backup';
import { keepDailyCopy } from './copies';
import type { DesignsStore } from './designs';
import { photoStore } from './photos';
import { revisionStore } from './revisions';

const PICTURES = path.join(process.cwd(), 'src/server/demo-pictures');
const SIZE = { width: 900, height: 640 };

interface Kept {
  of: string;
  name: string;
  why: string;
  at: string;
  /** What was different then. */
  then: Patch;
}

/** How two designs of the demo stood before. */
const KEPT: readonly Kept[] = [
  {
    of: 'Slave-clock line, stairwell',
    name: 'As first built',
    why: 'In the old case, before it was found to hold its volts for ten minutes.',
    at: '2026-03-14T17:20:00.000Z',
    then: { filter: { bleederOhm: null }, reservoir: { capacitanceF: 4700e-6 } },
  },
  {
    of: 'Slave-clock line, stairwell',
    name: 'With the bleeder',
    why: 'A larger can and the bleeder, both of one evening.',
    at: '2026-05-02T18:05:00.000Z',
    then: {},
  },
  {
    of: 'Dome motor, unregulated',
    name: 'As salvaged',
    why: 'What the core came with, before anybody counted its turns.',
    at: '2026-04-02T19:00:00.000Z',
    then: { transformer: { ratedV: 31, source: { kind: 'plate' } } },
  },
  {
    of: 'Dome motor, unregulated',
    name: 'Rewound',
    why: 'The controller takes no more than 41 V while it brakes.',
    at: '2026-04-11T16:30:00.000Z',
    then: { transformer: { source: { kind: 'plate' } } },
  },
];

/** What a demo's shelf has beside its designs: how two of them stood before, the pictures of a log, and a backup. */
export function fillDemoRecords(db: Database.Database, file: string, designs: DesignsStore, now = new Date()): void {
  const ids = new Map(designs.list().map((e) => [e.name, e.id]));
  const known = new Map(demoDesigns().map((d): [string, Design] => [d.name, d]));
  const revisions = revisionStore(db);
  const fill = db.transaction(() => {
    for (const [n, { of, name, why, at, then }] of KEPT.entries())
      revisions.keep(
        ids.get(of)!,
        { id: `demo-${n}`, name, why },
        applyPatch(known.get(of)!, then),
        false,
        new Date(at),
      );
    const photos = photoStore(db);
    for (const picture of readdirSync(PICTURES).filter((f) => f.endsWith('.png'))) {
      const bytes = readFileSync(path.join(PICTURES, picture));
      const id = createHash('sha256').update(bytes).digest('hex').slice(0, 32);
      photos.keep({ id, type: 'image/png', ...SIZE, bytes }, now);
    }
    remember(db, LAST_BACKUP, now.toISOString());
  });
  fill.immediate();
  // The backup itself lies beside the file, as every day's does.
  if (file !== ':memory:') keepDailyCopy(db, file, now);
}

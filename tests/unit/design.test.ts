import { DESIGN_VERSION } from '@/core/design/migrate';
import { blankDesign, MAINS_PRESETS } from '@/core/design/defaults';
import { applyPatch, mergePatches, type Design } from '@/core/design/design';
import { rangeFault } from '@/core/design/limits';
import { designSchema } from '@/core/design/design-schema';
import { readDesign } from '@/core/design/schema';
import { arrangementWords, ratingWords, windingWords } from '@/core/design/words';
import { demoDesigns } from '@/core/design/demo-designs';

const design = (): Design =>
  blankDesign(
    'Test supply',
    { outputV: 15, outputA: 0.6, tolerancePct: 5, rippleVpp: 0.005, kind: 'current' },
    MAINS_PRESETS[0]!.mains,
  );

test('every demo design and a fresh one are valid, and survive a trip through JSON', () => {
  for (const d of [...demoDesigns(), design()]) {
    const read = readDesign(JSON.parse(JSON.stringify(d)));
    expect(read).toEqual({ ok: true, design: d });
  }
});

test('a patch changes what it names, and nothing of the design it was made from', () => {
  const before = design();
  const frozen = JSON.stringify(before);
  const after = applyPatch(before, { reservoir: { capacitanceF: 4700e-6 }, name: 'Other' });
  expect(after.reservoir).toEqual({ ...before.reservoir, capacitanceF: 4700e-6 });
  expect(after.name).toBe('Other');
  expect(after.transformer).toBe(before.transformer);
  expect(JSON.stringify(before)).toBe(frozen);
});

test('two patches made one do what both do in turn', () => {
  const first = {
    reservoir: { capacitanceF: 1e-3, ratedV: 25 },
    regulator: { kind: 'fixed' as const, size: '78' as const, outputV: 12 },
  };
  const second = { reservoir: { ratedV: 50 }, regulator: { kind: 'none' as const }, name: 'Both' };
  expect(applyPatch(design(), mergePatches(first, second))).toEqual(applyPatch(applyPatch(design(), first), second));
});

test('an edit keeps every member a design has, in the order of the file, and leaves what it edits alone', () => {
  for (const demo of demoDesigns()) {
    const before = JSON.stringify(demo);
    const same = applyPatch(demo, {});
    expect(same).not.toBe(demo);
    expect(JSON.stringify(same)).toBe(before);
    expect(Object.keys(applyPatch(demo, { heat: { ambientC: 40 } }))).toEqual(Object.keys(designSchema.fields));
    expect(JSON.stringify(demo)).toBe(before);
  }
});

test('choosing a regulator replaces the old one whole', () => {
  const fixed = applyPatch(design(), { regulator: { kind: 'fixed', size: '78', outputV: 15 } });
  expect(applyPatch(fixed, { regulator: { kind: 'none' } }).regulator).toEqual({ kind: 'none' });
});

describe('a file that is no design of ours', () => {
  // The members are spoiled on purpose, so they have no type worth keeping.
  type Loose = Record<string, unknown> &
    Record<'mains' | 'reservoir' | 'transformer' | 'rectifier' | 'bench', Record<string, unknown>>;
  const spoiled = (spoil: (d: Loose) => void) => {
    const d = JSON.parse(JSON.stringify(design())) as Loose;
    spoil(d);
    const read = readDesign(d);
    return read.ok ? 'accepted' : `${read.fault.path} | ${read.fault.sentence}`;
  };
  test.each<[string, (d: Loose) => void, RegExp]>([
    [
      'volts as text',
      (d) => {
        d.mains['voltageRms'] = '230';
      },
      /^mains\.voltageRms \| it has to be a number/,
    ],
    [
      'a member missing',
      (d) => {
        delete d.reservoir['esrOhm'];
      },
      /^reservoir\.esrOhm \| it is missing/,
    ],
    [
      'a group missing',
      (d) => {
        delete d['heat'];
      },
      /^heat \| it is missing/,
    ],
    [
      'a 1e9 F reservoir',
      (d) => {
        d.reservoir['capacitanceF'] = 1e9;
      },
      /^reservoir\.capacitanceF \| .*beyond any real supply/,
    ],
    [
      'a negative winding',
      (d) => {
        d.transformer['ratedV'] = -12;
      },
      /^transformer\.ratedV \| .*cannot be negative/,
    ],
    [
      'a regulator nobody makes',
      (d) => {
        d['regulator'] = { kind: 'fixed', size: '78S', outputV: 13 };
      },
      /^regulator\.outputV \| there is no 78S regulator for 13 V/,
    ],
    [
      'an unknown diode',
      (d) => {
        d.rectifier['diode'] = 'selenium';
      },
      /^rectifier\.diode \| it has to be one of/,
    ],
    [
      'a foreign format',
      (d) => {
        d['format'] = 'other';
      },
      /^format \| this is not a design file of this program/,
    ],
    [
      'a later version',
      (d) => {
        d['version'] = DESIGN_VERSION + 1;
      },
      new RegExp(`^version \\| this file has version ${DESIGN_VERSION + 1}`),
    ],
    [
      'an empty name',
      (d) => {
        d['name'] = '';
      },
      /^name \| it is empty/,
    ],
    [
      'a name of 81 letters',
      (d) => {
        d['name'] = 'x'.repeat(81);
      },
      /^name \| it is longer than 80/,
    ],
    [
      'a member no design has',
      (d) => {
        d['plugin'] = {};
      },
      /no design has: plugin/,
    ],
    [
      'an absurd reading',
      (d) => {
        d.bench['readings'] = [{ point: 'mains', value: 1e30, mainsV: 230, at: '2026-01-01T00:00:00Z' }];
      },
      /^bench\.readings\[0\]\.value/,
    ],
  ])('%s', (_name, spoil, sentence) => {
    expect(spoiled(spoil)).toMatch(sentence);
  });
  test.each([[null], [[]], ['{}'], [7]])('%p', (value) => {
    expect(readDesign(value)).toEqual({ ok: false, fault: { path: '', sentence: 'a design has to be a JSON object' } });
  });
});

test('a field’s range is told in a sentence, its ends included', () => {
  expect(rangeFault('reservoir.capacitanceF', 0)).toBeNull();
  expect(rangeFault('demand.outputV', 0.1)).toBe('Output has to be at least 500 mV.');
  expect(rangeFault('transformer.ratedV', -3)).toMatch(/cannot be negative/);
  expect(rangeFault('demand.outputA', 1000)).toMatch(/goes up to 50\.0 A/);
  expect(rangeFault('demand.outputA', Infinity)).toMatch(/has to be a number/);
});

test('a design says in words what it is', () => {
  const d = applyPatch(design(), {
    rectifier: { kind: 'centre-tap' },
    regulator: { kind: 'fixed', size: '78', outputV: 15 },
  });
  expect(arrangementWords(d)).toBe('230 V 50 Hz, centre tap, 2200 µF, 7815');
  expect(ratingWords(d)).toBe('15 V, 600 mA');
  expect(windingWords(d)).toBe('2 × 15 V');
});

import { applyPatch, type Design } from '@/core/design/design';
import { differences } from '@/core/picture/differences';
import { studyDesign } from '@/core/study/study';
import { billOf } from '@/core/study/bill';
import { billDifferences } from '@/core/study/bill-differences';
import { clock, drum, logger } from '../support/demos';

const said = (before: Design, after: Design) =>
  differences(before, after).map((d) => `${d.label}: ${d.before} → ${d.after}`);

test('what differs is said by its field, with its units, in the order of the street', () => {
  const after = applyPatch(clock, {
    transformer: { ratedV: 22, regulationPct: null },
    reservoir: { capacitanceF: 4700e-6 },
    heat: { oneSink: true },
    mainsSide: { switchPoles: 1 },
    name: 'Second version',
  });
  expect(said(clock, after)).toEqual([
    `name: ${clock.name} → Second version`,
    'Transformer, winding: 24 V → 22 V',
    'Transformer, regulation: 9 % → typical for the size',
    'Reservoir, capacitance: 6800 µF → 4700 µF',
    'Heat, one sink: no → yes',
    'Mains side, switch poles: 2 → 1',
  ]);
  expect(said(after, clock)).toContain('Reservoir, capacitance: 4700 µF → 6800 µF');
});

test('what was read, written down, ticked or counted is no difference of the supply', () => {
  const after = applyPatch(clock, {
    note: 'x',
    stage: 'retired',
    log: [],
    bench: { readings: [] },
    build: { placed: [] },
    picked: [],
  });
  expect(differences(clock, after)).toEqual([]);
  expect(differences(clock, clock)).toEqual([]);
});

test('parts of a list are told by their place; one that only one has says all of itself', () => {
  const choke = {
    kind: 'choke',
    inductanceH: 0.1,
    resistanceOhm: 4,
    ratedA: 2,
  } as unknown as Design['filter']['after'][number];
  const can = {
    kind: 'capacitor',
    capacitanceF: 1e-3,
    ratedV: 50,
    esrOhm: null,
  } as unknown as Design['filter']['after'][number];
  const one = applyPatch(clock, { filter: { after: [choke, can] } });
  const two = applyPatch(clock, { filter: { after: [{ ...choke, inductanceH: 0.2 } as typeof choke, can] } });
  const [, , ...rest] = said(one, two);
  expect(rest).toEqual([]);
  expect(said(one, two)[0]).toMatch(/^Filter 1, .*100 mH → 200 mH$|^Filter, after 1 inductance: 100 mH → 200 mH$/);
  expect(said(clock, one)[0]).toMatch(/choke.*100 mH.*4 Ω.*2 A/);
  expect(said(clock, drum).length).toBeGreaterThan(10);
  for (const d of differences(drum, logger))
    expect(`${d.label}${d.before}${d.after}`).not.toMatch(/undefined|NaN|\[object/);
});

test('the bill: what one has and the other has not, and what that comes to', () => {
  const bill = (design: Design) => billOf(studyDesign(design));
  const bare = applyPatch(clock, { filter: { bleederOhm: null }, heat: { sinkKPerW: 3 } });
  const compared = billDifferences(bill(bare), bill(clock));
  expect(compared.lines.map((l) => [l.what, l.before.count, l.after.count])).toEqual([
    ['Heatsink 3 K/W', 1, 0],
    ['Bleeder 220 kΩ', 0, 1],
    ['Heatsink 1.5 K/W', 0, 1],
  ]);
  const sum = compared.lines.reduce((total, l) => total + l.after.eur - l.before.eur, 0);
  expect(compared.afterEur - compared.beforeEur).toBeCloseTo(sum, 9);
  expect(billDifferences(bill(clock), bill(clock)).lines).toEqual([]);
});

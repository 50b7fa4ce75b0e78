import fc from 'fast-check';
import { assemblyNext, assemblyOf, tickOf } from '@/core/build/assembly';
import { kitOf } from '@/core/build/kit';
import { stagesOf } from '@/core/bench/stages';
import { applyPatch, type Design } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';
import { netlistOf } from '@/core/netlist/netlist-of';
import { billOf } from '@/core/study/bill';
import { studyDesign } from '@/core/study/study';
import { absurd } from '../support/designs';
import { clock, dome, drum, logger } from '../support/demos';

const stages = (design: Design) => assemblyOf(design, netlistOf(design));
const next = (design: Design) => assemblyNext(design, stages(design));
const bare = applyPatch(clock, { build: { placed: [] }, bench: { readings: [] } });
const placed = (design: Design, refs: readonly string[]) => {
  const parts = netlistOf(design).parts.filter((p) => refs.includes(p.ref));
  return applyPatch(design, { build: { placed: parts.map(tickOf) } });
};
const AT = '2026-11-28T10:00:00.000Z';
const read = (design: Design, point: string, value: number): Design =>
  applyPatch(design, {
    bench: { readings: [...design.bench.readings, { point, value, mainsV: 230, fedFrom: 'mains', at: AT }] },
  });

test('every part goes in once, in the stages of the power-up', () => {
  fc.assert(
    fc.property(absurd, (design) => {
      const parts = stages(design).flatMap((s) => s.parts.map((p) => p.ref));
      expect([...parts].sort()).toEqual(
        netlistOf(design)
          .parts.map((p) => p.ref)
          .sort(),
      );
      // Every stage of the power-up that waits for a reading comes after one of the building.
      const tests = stages(design).flatMap((s) => s.tests);
      expect(tests).toEqual(
        stagesOf(design)
          .filter((s) => s.points.length > 0)
          .map((s) => s.name),
      );
    }),
    { numRuns: 100 },
  );
});

test('low parts first, what minds heat behind them, cans and iron last', () => {
  const [mains, rectifier, regulator] = stages(bare);
  expect(mains!.parts.at(-1)!.kind).toBe('transformer');
  const kinds = rectifier!.parts.map((p) => p.kind);
  expect(kinds.indexOf('resistor')).toBeLessThan(kinds.indexOf('diode'));
  expect(kinds.at(-1)).toBe('electrolytic');
  expect(regulator!.parts.map((p) => p.kind)).toEqual(['capacitor', 'capacitor', 'regulator']);
});

describe('what is next', () => {
  test('the first part of the first stage; then its next', () => {
    const first = next(bare);
    if (first.do !== 'place') throw new Error(first.do);
    expect(first.part.ref).toBe('J1');
    const second = next(placed(bare, ['J1']));
    expect(second).toMatchObject({ do: 'place', part: { ref: 'F1' } });
  });

  test('a stage that is all in is measured before anything further goes in, and then it is not', () => {
    const [mains] = stages(bare);
    const built = placed(
      bare,
      mains!.parts.map((p) => p.ref),
    );
    expect(next(built)).toEqual({ do: 'test', stage: mains!.name, tests: ['Transformer alone'] });
    const measured = read(built, 'secondary-open', 26.2);
    expect(next(measured)).toMatchObject({ do: 'place', stage: 'Rectifier and reservoir' });
  });

  test('what was in stays in when references move, and a part of another value has to go in anew', () => {
    const one = placed(bare, ['R1']);
    // A filter resistor ahead of the bleeder takes its reference.
    const moved = applyPatch(one, { filter: { before: [{ kind: 'resistor', resistanceOhm: 1 }] } });
    const inPlace = (d: Design) =>
      netlistOf(d)
        .parts.filter((p) => d.build.placed.includes(tickOf(p)))
        .map((p) => [p.ref, p.line]);
    expect(inPlace(moved)).toEqual([['R2', 'bleeder']]);
    expect(inPlace(applyPatch(one, { filter: { bleederOhm: 100e3 } }))).toEqual([]);
  });

  test('with all in and read nothing is left', () => {
    let all = placed(
      bare,
      netlistOf(bare).parts.map((p) => p.ref),
    );
    for (const point of new Set(stagesOf(bare).flatMap((s) => s.points))) {
      expect(next(all).do).toBe('test');
      all = read(all, point, 24);
    }
    expect(next(all)).toEqual({ do: 'done' });
  });

  test('a battery begins with itself, and has no transformer', () => {
    const own = stages(applyPatch(logger, { build: { placed: [] } }));
    expect(own[0]!.name).toBe('Source');
    expect(own.map((s) => s.name)).not.toContain('Mains and transformer');
  });
});

describe('the kit', () => {
  const bill = billOf(studyDesign(drum));
  const line = (design: Design, what: RegExp) => kitOf(design, bill).find((k) => what.test(k.what))!;
  const name = line(drum, /^Electrolytic/).line;
  const came = (n: number) => applyPatch(drum, { build: { kit: [{ line: name, came: n }] } });

  test('asks nothing until it is counted, names what is missing, and asks about what is left over', () => {
    expect(line(drum, /^Electrolytic/)).toMatchObject({ wanted: 2, came: null, missing: 0, over: 0, question: null });
    expect(line(came(2), /^Electrolytic/)).toMatchObject({ came: 2, question: null });
    expect(line(came(0), /^Electrolytic/)).toMatchObject({ missing: 2, question: '2 missing' });
    expect(line(came(3), /^Electrolytic/)).toMatchObject({
      over: 1,
      question: 'third Electrolytic 2200 µF 50 V: spare?',
    });
  });

  test('what was counted and is wanted no more is asked about, not dropped', () => {
    const changed = applyPatch(came(2), { reservoir: { ratedV: 63 } });
    const rest = kitOf(changed, billOf(studyDesign(changed))).filter((k) => k.wanted === 0);
    expect(rest).toEqual([expect.objectContaining({ came: 2, over: 2, question: expect.stringMatching(/no longer/) })]);
  });

  test('is kept by the document, and a count below nothing is refused where it is', () => {
    expect(readDesign(JSON.parse(JSON.stringify(came(3)))).ok).toBe(true);
    const bad = readDesign(JSON.parse(JSON.stringify(came(-1))));
    expect(bad.ok ? '' : bad.fault.path).toBe('build.kit[0].came');
    const many = readDesign({
      ...dome,
      build: { ...dome.build, placed: Array.from({ length: 601 }, () => 'bleeder 1') },
    });
    expect(many.ok ? '' : many.fault.sentence).toMatch(/600 parts/);
  });

  test('every line of a bill is known by one name of its own', () => {
    for (const d of [clock, dome, drum, logger]) {
      const lines = kitOf(d, billOf(studyDesign(d))).map((k) => k.line);
      expect(new Set(lines).size).toBe(lines.length);
    }
  });
});

test('the slave-clock line stands half assembled at its second stage, and its third diode is next', () => {
  expect(stages(clock).map((s) => [s.placed, s.parts.length])).toEqual([
    [4, 4],
    [3, 6],
    [0, 3],
    [0, 2],
  ]);
  // What is ticked is all of it known.
  expect(clock.build.placed).toHaveLength(7);
  const then = next(clock);
  expect(then.do === 'place' ? then.part.ref : then.do).toBe('D3');
});

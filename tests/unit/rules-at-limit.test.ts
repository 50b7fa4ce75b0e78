import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';
import { curesOf } from '@/core/judge/cures-of';
import { judge } from '@/core/judge/judge';
import { RULE_IDS, type RuleId } from '@/core/judge/rules';
import type { Verdict } from '@/core/judge/verdict';
import { studyDesign } from '@/core/study/study';

import { logger as pole, tide } from '../support/demos';
import { ROWS, type Row } from '../support/rule-rows';

const verdictOf = (row: Row, x: number): Verdict =>
  judge(studyDesign(applyPatch(row.design, row.turn(x))), [row.id])[0]!;

/** Turns until the figure stands at a value: the ratio is halved, or the difference where the range crosses nothing. */
function turned(row: Row, value: number): { holds: number; beyond: number } {
  let [a, b] = [row.from, row.to];
  const beyond = (x: number) => {
    const { figure } = verdictOf(row, x);
    return row.relation === 'at least' ? figure.value < value : figure.value > value;
  };
  for (let round = 0; round < 16; round++) {
    const middle = a > 0 && b > 0 ? Math.sqrt(a * b) : (a + b) / 2;
    if (beyond(middle)) b = middle;
    else a = middle;
  }
  return { holds: a, beyond: b };
}

describe('every rule at its limit from both sides', () => {
  test.each(ROWS.map((row) => [row.id, row] as const))('%s', (_, row) => {
    const start = verdictOf(row, row.from);
    const end = verdictOf(row, row.to);
    expect(start.state).toBe('holds');
    expect(end.state).toBe(row.caution ? 'caution' : 'fails');

    const { holds, beyond } = turned(row, row.limit);
    const [inside, outside] = [verdictOf(row, holds), verdictOf(row, beyond)];
    // The turning stopped where the figure crosses the limit that was worked out, and there the state changes.
    expect(Math.abs(inside.figure.value - row.limit)).toBeLessThan(0.01 * Math.max(row.limit, row.wanted));
    expect(outside.state).toBe(row.caution ? 'caution' : 'fails');
    // A caution never counts as a margin: it holds until it is one.
    expect(inside.state).toBe(row.caution ? 'holds' : 'tight');
    expect(inside.limit).toBeCloseTo(row.limit, 5);
    expect(inside.wantedMargin / row.wanted).toBeCloseTo(1, 2);
    expect([inside.at, inside.output]).toEqual([row.at, row.output ?? null]);
    const [stands, within] = row.where ?? [holds, 1];
    expect(Math.abs(holds / stands - 1)).toBeLessThan(within);
  });

  test.each(ROWS.filter((r) => !r.caution && r.id !== 'diode-reverse').map((row) => [row.id, row] as const))(
    '%s holds while what is wanted is left, and is tight from there on',
    (_, row) => {
      const edge = row.relation === 'at least' ? row.limit + row.wanted : row.limit - row.wanted;
      const { holds, beyond } = turned(row, edge);
      expect([verdictOf(row, holds).state, verdictOf(row, beyond).state]).toEqual(['holds', 'tight']);
    },
  );

  test('no rule is left out', () => {
    const elsewhere: RuleId[] = ['choke-critical', 'choke-idle', 'reverse-polarity'];
    expect(new Set([...ROWS.map((r) => r.id), ...elsewhere])).toEqual(new Set(RULE_IDS));
  });
});

describe('the choke', () => {
  /** Ohm of load at which a choke's current just ceases, full wave at 50 Hz: R = 3·ω·L, the textbook's 943·L. */
  const criticalOhm = (henry: number) => 943 * henry;

  test.each([5, 15, 40])('of %d H carries its current on down to its critical load', (inductanceH) => {
    const of = (bleederOhm: number) =>
      applyPatch(tide, {
        filter: {
          before: [{ kind: 'choke', inductanceH, resistanceOhm: 100, ratedA: 0.2, swinging: false }],
          bleederOhm,
        },
        transformer: { leakageH: 0 },
        reservoir: { capacitanceF: 220e-6 },
      });
    const idle = (ohm: number) => judge(studyDesign(of(ohm)), ['choke-idle'])[0]!;
    expect(idle(0.8 * criticalOhm(inductanceH)).state).not.toBe('caution');
    expect(idle(1.25 * criticalOhm(inductanceH)).state).toBe('caution');
    const loaded = (ohm: number) => {
      const design = applyPatch(of(1e6), { demand: { kind: 'resistance', outputA: tide.demand.outputV / ohm } });
      return judge(studyDesign(design), ['choke-critical'])[0]!;
    };
    expect(loaded(0.7 * criticalOhm(inductanceH)).state).not.toBe('fails');
    expect(loaded(1.4 * criticalOhm(inductanceH)).state).toBe('fails');
  });
});

test('swapped leads: a diode or a keyed plug stops them, nothing else does', () => {
  const verdict = (patch: Patch) => judge(studyDesign(applyPatch(pole, patch)), ['reverse-polarity'])[0]!;
  const open = { source: { ...pole.source, reverseDiode: false } as Design['source'] };
  expect(verdict({}).state).toBe('holds');
  expect(verdict(open).state).toBe('fails');
  expect(verdict({ ...open, mainsSide: { polarised: true } }).state).toBe('holds');
});

test('every cure of every rule makes a document that can be saved, and changes the design', () => {
  for (const row of ROWS) {
    const failing = applyPatch(row.design, row.turn(row.to));
    for (const edit of curesOf(failing, row.id, 'main')) {
      const cured = applyPatch(failing, edit.patch);
      expect([row.id, edit.label, readDesign(JSON.parse(JSON.stringify(cured))).ok]).toEqual([
        row.id,
        edit.label,
        true,
      ]);
      expect([row.id, edit.label, cured]).not.toEqual([row.id, edit.label, failing]);
    }
  }
});

import { readFileSync } from 'node:fs';
import path from 'node:path';
import { readCase } from '@/core/circuit/case-file';
import { solveRun } from '@/core/solve/solve-run';

/**
 * Circuits that used to be a tenth of a per cent off, with what the same equations give at a two-thousandth of the usual
 * step tolerance and a sixteenth of the longest step: what smooths little, and what hides behind a choke.
 */
interface Fine {
  name: string;
  case: unknown;
  fine: Record<'rails' | 'diodes' | 'windings', Record<string, number>[]>;
}
const ALL = JSON.parse(readFileSync(path.join(__dirname, '../fixtures/finely-solved.json'), 'utf8')) as Fine[];

test.each(ALL)('$name: every figure within 0.06 % of the finely solved one', ({ case: file, fine }) => {
  const { network, run } = readCase(file);
  const solved = solveRun(network, run) as unknown as Fine['fine'];
  for (const kind of ['rails', 'diodes', 'windings'] as const) {
    fine[kind].forEach((figures, n) => {
      for (const [key, value] of Object.entries(figures)) {
        const off = Math.abs(solved[kind][n]![key]! - value);
        // What is nothing in one is nothing in the other.
        expect({
          kind,
          n,
          key,
          off: off <= 6e-4 * Math.abs(value) + 1e-5 * Math.abs(fine.rails[0]!['meanV']!) * (key === 'minV' ? 1 : 0),
        }).toEqual({ kind, n, key, off: true });
      }
    });
  }
});

test('half-wave, 12 V behind 0.5 ohm into 50 ohm: 4.95072 V on the mean, as worked out by quadrature elsewhere', () => {
  const { network, run } = readCase(ALL[0]!.case);
  expect(solveRun(network, run).rails[0]!.meanV).toBeCloseTo(4.95072, 3);
});

import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { CaseError, readCase } from '@/core/circuit/case-file';
import { resultFile, solveRun } from '@/core/solve/solve-run';
import { compareResults } from '@/core/solve/compare';

const CASES = path.join(__dirname, '../fixtures/cases');
const load = (file: string) => JSON.parse(readFileSync(path.join(CASES, file), 'utf8')) as Record<string, unknown>;
const ALL = readdirSync(CASES)
  .filter((f) => f.endsWith('.json'))
  .map((f) => f.replace('.json', ''));

const worst = new Map<string, string>();
afterAll(() => {
  process.stdout.write(
    `\nWorst error on the trusted results:\n${[...worst].map(([id, line]) => `  ${id.padEnd(30)}${line}`).join('\n')}\n`,
  );
});

test.each(ALL)('%s agrees with the trusted result within 0.06 % on every field', (id) => {
  const { network, run } = readCase(load(`${id}.json`));
  const rows = compareResults(load(`results/${id}.json`), resultFile(solveRun(network, run)));
  expect(rows.length).toBeGreaterThan(20);
  worst.set(id, `${(100 * rows[0]!.relative).toFixed(4)} %  ${rows[0]!.path}`);
  expect(rows[0]!.relative).toBeLessThan(6e-4);
});

test('all twenty are there', () => {
  expect(ALL).toHaveLength(20);
});

describe('a case file that is wrong', () => {
  const good = () =>
    load('01-bridge-12v-500ma.json') as {
      source: Record<string, unknown>;
      rectifier: Record<string, unknown>;
      rails: { filter: Record<string, unknown>[]; load: unknown }[];
      run: unknown;
      frequencyHz: unknown;
    };
  const fault = (spoil: (c: ReturnType<typeof good>) => void) => {
    const c = good();
    spoil(c);
    try {
      readCase(c);
    } catch (error) {
      if (error instanceof CaseError) return error.message;
      throw error;
    }
    return 'accepted';
  };

  test.each<[string, (c: ReturnType<typeof good>) => void, RegExp]>([
    [
      'volts as text',
      (c) => {
        c.source['voltageRms'] = '12';
      },
      /^source\.voltageRms: it has to be a plain number/,
    ],
    [
      'no frequency',
      (c) => {
        delete c.frequencyHz;
      },
      /^frequencyHz: it is missing/,
    ],
    [
      'an unknown rectifier',
      (c) => {
        c.rectifier['kind'] = 'ring';
      },
      /^rectifier\.kind: it is ring/,
    ],
    [
      'a negative capacitor',
      (c) => {
        c.rails[0]!.filter[0]!['capacitanceF'] = -1;
      },
      /^rails\[0\]\.filter\[0\]\.capacitanceF: it has to be more than 0/,
    ],
    [
      'a load of no kind',
      (c) => {
        c.rails[0]!.load = { currentA: 1 };
      },
      /^rails\[0\]\.load\.kind: it is missing/,
    ],
    [
      'a null load',
      (c) => {
        c.rails[0]!.load = null;
      },
      /^rails\[0\]\.load/,
    ],
    [
      'a run without its cycles',
      (c) => {
        c.run = { kind: 'start' };
      },
      /^run\.cycles: it is missing/,
    ],
    [
      'flat-topping of 1',
      (c) => {
        c.source['flatTop'] = 1;
      },
      /^source\.flatTop: it has to be below 1/,
    ],
    [
      'two rails on a bridge',
      (c) => {
        c.rails.push(c.rails[0]!);
      },
      /^rails: it holds 2, a bridge has one rail/,
    ],
    [
      'a doubler that starts with a choke',
      (c) => {
        c.rectifier['kind'] = 'doubler';
        c.rails[0]!.filter.unshift({ kind: 'inductor', inductanceH: 1 });
      },
      /^rails\[0\]\.filter\[0\]: a doubler has to start with a capacitor/,
    ],
    [
      'a diode that is not there',
      (c) => {
        c.rectifier['faults'] = [{ diode: 4, state: 'open' }];
      },
      /^rectifier\.faults\[0\]\.diode: it is 4, the diodes of this rectifier count from 0 to 3/,
    ],
    [
      'a diode broken twice',
      (c) => {
        c.rectifier['faults'] = [
          { diode: 1, state: 'open' },
          { diode: 1, state: 'short' },
        ];
      },
      /diode 1 is listed twice/,
    ],
    [
      'a step without a current to step',
      (c) => {
        c.rails[0]!.load = { kind: 'resistance', resistanceOhm: 10 };
        c.run = { kind: 'step', fromA: 0.1, toA: 1, cycles: 2 };
      },
      /^run: a step needs a load with a current/,
    ],
    [
      'a dip that outlasts its run',
      (c) => {
        c.run = { kind: 'dip', missingCycles: 2, atCycle: 1.5, cycles: 3 };
      },
      /^run\.missingCycles: the dip ends at cycle 3.5, after the run of 3/,
    ],
  ])('%s', (_name, spoil, sentence) => {
    expect(fault(spoil)).toMatch(sentence);
  });

  test.each([[null], [[]], ['text'], [3]])('%p is no case at all', (value) => {
    expect(() => readCase(value)).toThrow(CaseError);
  });

  test('the run may be left out', () => {
    const c = good();
    delete c.run;
    expect(readCase(c).run).toEqual({ kind: 'steady' });
  });
});

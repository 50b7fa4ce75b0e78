import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { CaseError, readCase } from '@/core/circuit/case-file';
import { resultFile, solveRun } from '@/core/solve/case-result';
import { compareResults } from '@/core/solve/compare';

const CASES = path.join(__dirname, '../fixtures/cases');
const load = (file: string) => JSON.parse(readFileSync(path.join(CASES, file), 'utf8')) as Record<string, unknown>;
const COVERED = [
  '01-bridge-12v-500ma',
  '03-halfwave-24v-rload-esr0',
  '06-centretap-25v-2a',
  '33-regulator-in-dropout',
  '34-flat-top-bridge',
  '49-two-regulators-one-rail',
];

const worst = new Map<string, string>();
afterAll(() => {
  process.stdout.write(
    `\nWorst error on the trusted results:\n${[...worst].map(([id, line]) => `  ${id.padEnd(30)}${line}`).join('\n')}\n`,
  );
});

test.each(COVERED)('%s agrees with the trusted result within 0.02 % on every field', (id) => {
  const { network, run } = readCase(load(`${id}.json`));
  const rows = compareResults(load(`results/${id}.json`), resultFile(solveRun(network, run)));
  expect(rows.length).toBeGreaterThan(20);
  worst.set(id, `${(100 * rows[0]!.relative).toFixed(4)} %  ${rows[0]!.path}`);
  expect(rows[0]!.relative).toBeLessThan(2e-4);
});

test('every other case is refused with a place and a sentence rather than solved wrongly', () => {
  const others = readdirSync(CASES).filter((f) => f.endsWith('.json') && !COVERED.includes(f.replace('.json', '')));
  expect(others.length).toBe(14);
  for (const file of others) expect(() => readCase(load(file))).toThrow(CaseError);
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
      /^rails: it has to hold exactly one rail/,
    ],
    [
      'leakage inductance',
      (c) => {
        c.source['inductanceH'] = 1e-3;
      },
      /leakage inductance/,
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

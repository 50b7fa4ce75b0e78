import { execFileSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';

/** The README's recipes, followed to the letter in a copy of the house: a rule, an arrangement, a regulator family, a kind of part. */
const root = path.join(__dirname, '../..');
let copy: string;
let touched: Set<string>;

function add(file: string, text: string): void {
  writeFileSync(path.join(copy, 'src', file), text);
  touched.add(file);
}

/** Puts a line behind the first line that holds `after`. */
function line(file: string, after: string, text: string): void {
  const place = path.join(copy, 'src', file);
  const lines = readFileSync(place, 'utf8').split('\n');
  const at = lines.findIndex((l) => l.includes(after));
  if (at < 0) throw new Error(`${file} has no line with ${after}`);
  lines.splice(at + 1, 0, text);
  writeFileSync(place, lines.join('\n'));
  touched.add(file);
}

/** Runs a program over the copy and hands back what it printed. */
function print(program: string): unknown {
  writeFileSync(path.join(copy, 'src/try.ts'), program);
  execFileSync(
    path.join(root, 'node_modules/.bin/esbuild'),
    [
      'src/try.ts',
      '--bundle',
      '--platform=node',
      '--format=esm',
      '--packages=external',
      '--alias:@=./src',
      '--outfile=try.mjs',
      '--log-level=error',
    ],
    { cwd: copy },
  );
  return JSON.parse(execFileSync(process.execPath, ['try.mjs'], { cwd: copy, encoding: 'utf8' })) as unknown;
}

const types = () =>
  execFileSync(process.execPath, [path.join(root, 'node_modules/typescript-7/bin/tsc'), '--noEmit', '-p', copy], {
    encoding: 'utf8',
  });

beforeAll(() => {
  copy = mkdtempSync(path.join(os.tmpdir(), 'recipes-'));
  cpSync(path.join(root, 'src'), path.join(copy, 'src'), { recursive: true });
  for (const file of ['tsconfig.json', 'package.json']) cpSync(path.join(root, file), path.join(copy, file));
  symlinkSync(path.join(root, 'node_modules'), path.join(copy, 'node_modules'));
});
afterAll(() => rmSync(copy, { recursive: true, force: true }));
beforeEach(() => (touched = new Set()));

test('a rule is a file and its line', () => {
  add(
    'core/judge/rules/rail-under-load.ts',
    `import { formatQuantity } from '@/core/quantity/format';
import { simulated } from '@/core/picture/working';
import { windingVolts } from '../cures';
import { FULL, type Rule } from '../rule';

/** Rail under its load: 5 V at least, as the trial wants it. */
export const railUnderLoad: Rule = {
  title: 'Rail under load',
  station: 'reservoir',
  scope: 'output',
  occasion: FULL,
  decides: ['transformer'],
  early: 9,
  find: ({ at }) => ({
    value: at.rail.meanV,
    limit: 5,
    relation: 'at least',
    wanted: 1,
    tell: () => ({
      figure: {
        id: 'rail-under-load',
        label: 'Rail under load',
        unit: 'V',
        origin: 'simulated',
        expression: 'mean over the cycle',
        inputs: [simulated('load', at.rail.loadMeanA, 'A')],
        source: 'Periodic steady state.',
        assumes: [],
      },
      limitSource: 'The trial.',
      sentence: \`\${formatQuantity(at.rail.meanV, 'V')} under load.\`,
      reason: 'The trial wants it.',
    }),
  }),
  cures: (design) => windingVolts(design, [1]),
};
`,
  );
  line('core/judge/rules.ts', 'import { windingHeat }', "import { railUnderLoad } from './rules/rail-under-load';");
  line('core/judge/rules.ts', "'choke-idle': chokeIdle,", "  'rail-under-load': railUnderLoad,");
  const found = print(`import { demoDesigns } from '@/core/design/demo-designs';
import { pictureOf } from '@/core/judge/picture';
import { cornerGrid } from '@/core/judge/corners';
const design = demoDesigns()[0]!;
const { picture } = pictureOf(design);
console.log(JSON.stringify({
  verdict: picture.verdicts.find((v) => v.id === 'rail-under-load'),
  railV: picture.points.low.rail.meanV,
  inGrid: JSON.stringify(cornerGrid(design)).includes('Rail under load'),
}));
`) as {
    verdict: { state: string; figure: { value: number }; limit: number; margin: number };
    railV: number;
    inGrid: boolean;
  };
  expect(found.verdict).toMatchObject({ state: 'holds', limit: 5 });
  expect(found.verdict.margin).toBeCloseTo(found.verdict.figure.value - 5, 9);
  expect(found.verdict.figure.value).toBeLessThanOrEqual(found.railV);
  expect(found.inGrid).toBe(true);
  expect([...touched]).toHaveLength(2);
});

test('an arrangement is a file and its line', () => {
  const half = readFileSync(path.join(copy, 'src/core/parts/arrangements/half-wave.ts'), 'utf8');
  add(
    'core/parts/arrangements/half-wave-pair.ts',
    half
      .replace('halfWave', 'halfWavePair')
      .replace("name: 'Half-wave'", "name: 'Half-wave, two in series'")
      .replace('diodes: [0]', 'diodes: [0, 1]')
      .replace("diodes: [['A', 'P']]", "diodes: [['A', 'M'], ['M', 'P']]"),
  );
  line(
    'core/parts/arrangements.ts',
    'import { halfWave }',
    "import { halfWavePair } from './arrangements/half-wave-pair';",
  );
  line('core/parts/arrangements.ts', "'half-wave': halfWave,", "  'half-wave-pair': halfWavePair,");
  const found = print(`import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';
import { studyDesign } from '@/core/study/study';
import { judge } from '@/core/judge/judge';
const of = (kind: 'half-wave' | 'half-wave-pair') => applyPatch(demoDesigns()[0]!, { rectifier: { kind } });
const one = studyDesign(of('half-wave')).nominal;
const pair = studyDesign(of('half-wave-pair'));
console.log(JSON.stringify({
  reads: readDesign(JSON.parse(JSON.stringify(of('half-wave-pair')))).ok,
  lostV: one.rail.meanV - pair.nominal.rail.meanV,
  verdicts: judge(pair).length,
  diodes: pair.nominal.solution.diodes.length,
}));
`) as { reads: boolean; lostV: number; verdicts: number; diodes: number };
  expect(found.reads).toBe(true);
  // One junction more costs a little under a volt.
  expect(found.lostV).toBeGreaterThan(0.4);
  expect(found.lostV).toBeLessThan(1.3);
  expect(found.diodes).toBe(2);
  expect(found.verdicts).toBeGreaterThan(8);
  expect([...touched]).toHaveLength(2);
});

test('a regulator family is its file, its line, its border, its way with an output, and its fields', () => {
  const source = readFileSync(path.join(copy, 'src/core/parts/regulators/low-dropout.ts'), 'utf8');
  add(
    'core/parts/regulators/shunt.ts',
    `import { lowDropoutModel } from './low-dropout';
import type { RegulatorModel } from './model';

/** A trial family: as the low-dropout one, at one volt setting. */
export interface ShuntRegulator {
  kind: 'shunt';
  outputV: number;
}

export function shuntModel(r: ShuntRegulator): RegulatorModel {
  return { ...lowDropoutModel({ kind: 'low-dropout', part: '${/'?([\w-]+)'?: \{\n\s+name:/.exec(source)?.[1] ?? ''}', outputV: r.outputV, boardCm2: 6 }), family: 'trial' };
}
`,
  );
  line('core/parts/regulators.ts', 'import { lowDropoutModel }', "import { shuntModel } from './regulators/shunt';");
  line('core/parts/regulators.ts', '  bench: benchModel,', '  shunt: shuntModel,');
  line('core/design/regulator-schema.ts', 'const FAMILY_SHAPES', "  shunt: { outputV: field('regulator.outputV') },");
  line('core/design/regulator-edit.ts', 'switch (kind) {', "    case 'shunt':\n      return { kind, outputV };");
  line(
    'core/design/regulator-edit.ts',
    'switch (regulator.kind) {',
    "    case 'shunt':\n      return { ...regulator, outputV };",
  );
  line('places/supply/family-fields.tsx', 'const FAMILY_NAMES', "  shunt: 'Trial family',");
  line(
    'places/supply/family-fields.tsx',
    "{regulator.kind === 'low-dropout' && (",
    "        <>{quantity('boardCm2', by(1))}</>\n      )}\n      {regulator.kind === 'shunt' && (<>{quantity('outputV', by(0.1))}</>)}\n      {regulator.kind === 'low-dropout' && (",
  );
  const found = print(`import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch } from '@/core/design/design';
import { regulatorOfKind } from '@/core/design/regulator-edit';
import { readDesign } from '@/core/design/schema';
import { pictureOf } from '@/core/judge/picture';
const design = demoDesigns()[7]!;
const made = applyPatch(design, { regulator: regulatorOfKind(design, 'shunt') });
const { picture } = pictureOf(made);
console.log(JSON.stringify({ reads: readDesign(JSON.parse(JSON.stringify(made))).ok, v: picture.points.nominal.outputMeanV, asked: design.demand.outputV, n: picture.verdicts.length }));
`) as { reads: boolean; v: number; asked: number; n: number };
  expect(found.reads).toBe(true);
  expect(found.v).toBeCloseTo(found.asked, 1);
  expect(found.n).toBeGreaterThan(8);
  expect([...touched].sort()).toEqual([
    'core/design/regulator-edit.ts',
    'core/design/regulator-schema.ts',
    'core/parts/regulators.ts',
    'core/parts/regulators/shunt.ts',
    'places/supply/family-fields.tsx',
  ]);
});

test('a kind of part is its line in the drawer and what it can be used for', () => {
  line('core/drawer/part.ts', "  'fuse',", "  'thermistor',");
  line(
    'core/drawer/part.ts',
    'export const KINDS',
    "  thermistor: { name: 'Inrush thermistors', ratings: [rating('coldOhm', 'Cold', 'ohm', 0.1, 1000, true)] },",
  );
  const found = print(`import { KINDS, PART_KINDS } from '@/core/drawer/part';
import { readPartsCsv } from '@/core/drawer/csv';
import { usesOf } from '@/core/drawer/fit';
import { demoDesigns } from '@/core/design/demo-designs';
const read = readPartsCsv('kind,name,count,coldOhm\\nthermistor,Black disc,2,10 ohm\\n');
const row = read.ok ? read.rows[0] : null;
console.log(JSON.stringify({ name: KINDS.thermistor.name, known: PART_KINDS.includes('thermistor'), row, uses: row && 'part' in row ? usesOf(row.part, demoDesigns()[0]!, 'transformer').length : -1 }));
`) as { name: string; known: boolean; row: { part: { ratings: { coldOhm: number } } }; uses: number };
  expect(found.row).toMatchObject({ part: { ratings: { coldOhm: 10 } } });
  expect(found.uses).toBe(0);
  expect([...touched]).toEqual(['core/drawer/part.ts']);
});

test('with all of them in it the house still compiles', () => {
  expect(types()).toBe('');
}, 120_000);

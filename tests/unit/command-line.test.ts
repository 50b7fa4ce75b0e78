import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const ROOT = path.join(__dirname, '../..');
const CASE = path.join(ROOT, 'tests/fixtures/cases/01-bridge-12v-500ma.json');
const folder = mkdtempSync(path.join(tmpdir(), 'solve-'));

function solve(args: string[], input = '') {
  const result = spawnSync(process.execPath, ['scripts/tool.mjs', 'solve', ...args], {
    cwd: ROOT,
    input,
    encoding: 'utf8',
  });
  return { status: result.status, out: result.stdout, err: result.stderr };
}

function file(name: string, text: string): string {
  const at = path.join(folder, name);
  writeFileSync(at, text);
  return at;
}

test('a case file comes back as a result file', () => {
  const { status, out } = solve([CASE]);
  expect(status).toBe(0);
  const result = JSON.parse(out) as {
    id: string;
    rails: { meanV: number }[];
    meta: { energyBalance: { relativeError: number } };
  };
  expect(result.id).toBe('01-bridge-12v-500ma');
  expect(result.rails[0]!.meanV).toBeCloseTo(13.2544, 3);
  expect(Math.abs(result.meta.energyBalance.relativeError)).toBeLessThan(1e-4);
});

test('standard input works too, and a list is answered in its order', () => {
  const one = JSON.parse(readFileSync(CASE, 'utf8')) as Record<string, unknown>;
  const { status, out } = solve(
    ['-'],
    JSON.stringify([
      { ...one, id: 'b' },
      { ...one, id: 'a' },
    ]),
  );
  expect(status).toBe(0);
  expect((JSON.parse(out) as { id: string }[]).map((r) => r.id)).toEqual(['b', 'a']);
});

test.each([
  ['not JSON', '{"a":', /not JSON/],
  ['no case', '3', /a case has to be a JSON object/],
  ['a fault', '{"frequencyHz": 50, "source": {"voltageRms": -12}}', /source\.voltageRms: it has to be more than 0/],
  ['a fault in a list', '[{"frequencyHz": "fifty"}]', /^\[0\] frequencyHz/],
])('%s: status 2 and a sentence', (name, text, sentence) => {
  const { status, out, err } = solve([file(`${name}.json`, text)]);
  expect(status).toBe(2);
  expect(out).toBe('');
  expect(err).toMatch(sentence);
});

test('a file that is not there is said to be not there', () => {
  const { status, err } = solve([path.join(folder, 'nowhere.json')]);
  expect(status).toBe(2);
  expect(err).toMatch(/nowhere\.json/);
});

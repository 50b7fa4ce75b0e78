import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { demoDesigns } from '@/core/design/demo-designs';

const ROOT = path.join(__dirname, '../..');
const CASE = path.join(ROOT, 'tests/fixtures/cases/01-bridge-12v-500ma.json');
const bridge = JSON.parse(readFileSync(CASE, 'utf8')) as { id: string; source: object };
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
  ['an unknown key', JSON.stringify({ ...bridge, voltage: 12 }), /^voltage: no case has such a key/],
  [
    'an unknown key within',
    JSON.stringify({ ...bridge, source: { ...bridge.source, resistance: 1 } }),
    /^source\.resistance: no case has such a key/,
  ],
  [
    'an unknown key of a load',
    JSON.stringify({ ...bridge, rails: [{ filter: [], load: { kind: 'resistance', resistanceOhm: 9, watts: 1 } }] }),
    /^rails\[0\]\.load\.watts: no case has such a key/,
  ],
  ['nesting without end', `${'['.repeat(9000)}${']'.repeat(9000)}`, /a case has to be a JSON object/],
])('%s: status 2, a sentence, and no trace of the program', (name, text, sentence) => {
  const { status, err } = solve([file(`${name}.json`, text)]);
  expect(status).toBe(2);
  expect(err.replace(/^\[0\] /, '')).toMatch(sentence);
  expect(err).not.toMatch(/\n\s+at /);
});

test('one bad case of a list does not cost the others, and stands in its place', () => {
  const { status, out, err } = solve(
    ['-'],
    JSON.stringify([bridge, { id: 'bad', frequencyHz: 'fifty' }, { ...bridge, id: 'last' }]),
  );
  expect(status).toBe(2);
  const answers = JSON.parse(out) as { id: string; error?: string; rails?: unknown[] }[];
  expect(answers.map((a) => [a.id, a.error === undefined])).toEqual([
    [bridge.id, true],
    ['bad', false],
    ['last', true],
  ]);
  expect(err).toMatch(/^\[1\] frequencyHz/);
});

test('a file that begins with the mark of its byte order is read', () => {
  expect(solve([file('bom.json', `\uFEFF${JSON.stringify(bridge)}`)]).status).toBe(0);
});

/** Whether a process has begun the solver it was asked for. */
function workOf(pid: number): boolean {
  const children = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').split(' ').filter(Boolean);
  return children.some((child) => {
    try {
      return readFileSync(`/proc/${child}/cmdline`, 'utf8').includes('solve.mjs');
    } catch {
      // It ended while it was looked at.
      return false;
    }
  });
}

test('a signal ends the work, not only what started it', async () => {
  const many = Array.from({ length: 4000 }, () => ({
    ...bridge,
    run: { kind: 'start', cycles: 9000, switchOnPhaseDeg: 0 },
  }));
  const started = spawn(process.execPath, ['scripts/tool.mjs', 'solve', file('many.json', JSON.stringify(many))], {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const ended = new Promise<number | null>((resolve) => started.on('close', (code) => resolve(code)));
  // Once the work itself runs, however long it took to begin.
  while (!workOf(started.pid!)) await new Promise((resolve) => setTimeout(resolve, 100));
  started.kill('SIGTERM');
  // Closed means that nobody holds its output any more: the work itself is gone too.
  expect(await ended).toBe(143);
});

test('a file that is not there is said to be not there', () => {
  const { status, err } = solve([path.join(folder, 'nowhere.json')]);
  expect(status).toBe(2);
  expect(err).toMatch(/nowhere\.json/);
});

describe('a design as files', () => {
  const design = (...args: string[]) =>
    spawnSync(process.execPath, ['scripts/tool.mjs', 'design', ...args], { cwd: ROOT, encoding: 'utf8' });
  const ALL = ['--netlist', '--circuit', '--wiring', '--bom', '--board', '--template'];
  const drum = file('drum.json', JSON.stringify(demoDesigns()[3]));

  test('what is asked for is written, and named', () => {
    const out = path.join(folder, 'build');
    const { status, stdout } = design(drum, ...ALL, '--out', out);
    expect(status).toBe(0);
    const written = stdout.trim().split('\n');
    expect(written.map((w) => path.basename(w))).toEqual([
      'netlist.csv',
      'netlist.json',
      'circuit.svg',
      'wiring.csv',
      'bom.csv',
      ...['copper-under.gbr', 'mask-under.gbr', 'silk.gbr', 'outline.gbr', 'drill.drl'].map((f) => `board-${f}`),
      ...['copper-mirrored', 'copper', 'parts'].map((view) => `board-${view}.svg`),
      'board.pdf',
      'centroid.csv',
      'board.csv',
      ...['front', 'rear', 'floor'].flatMap((face) => [`${face}.svg`, `${face}.dxf`]),
      'template.pdf',
    ]);
    const text = (name: string) => readFileSync(path.join(out, name), 'utf8');
    // Every part of the bill that has a reference is in the netlist.
    const parts = (JSON.parse(readFileSync(written[1]!, 'utf8')) as { parts: { ref: string }[] }).parts;
    expect(parts.map((p) => p.ref)).toEqual(expect.arrayContaining(['T1', 'D4', 'C2', 'U1', 'U2']));
    expect(readFileSync(written[2]!, 'utf8')).toMatch(/^<svg xmlns/);
    expect(text('wiring.csv')).toContain('T1 primary L');
    expect(text('board.csv')).toMatch(/^what,name,net,mm/);
    expect(text('board-copper-under.gbr')).toMatch(/^%TF\.FileFunction,Copper,L1,Bot\*%/);
    expect(text('rear.dxf')).toContain('CIRCLE');
    expect(text('template.pdf').slice(0, 5)).toBe('%PDF-');
  });

  test('a board of strips goes out as strips', () => {
    const out = path.join(folder, 'strips');
    const { status, stdout } = design(file('clock.json', JSON.stringify(demoDesigns()[0])), '--board', '--out', out);
    expect([
      status,
      stdout
        .trim()
        .split('\n')
        .map((w) => path.basename(w)),
    ]).toEqual([0, ['board-parts.svg', 'board-copper.svg', 'board.pdf', 'board.csv']]);
    expect(readFileSync(path.join(out, 'board.csv'), 'utf8')).toMatch(/^what,name,net,holes/);
  });

  test.each([
    ['a file that is not there', ['nowhere.json', '--netlist'], /nowhere\.json could not be read/],
    ['nothing asked for', [drum], /Usage/],
    ['an option nobody knows', [drum, '--sound'], /sound/],
  ])('%s ends with 2 and a sentence', (_name, args, words) => {
    const { status, stderr } = design(...args);
    expect(status).toBe(2);
    expect(stderr).toMatch(words);
  });

  test('a spoiled design is told with its path', () => {
    const bad = file('bad.json', JSON.stringify({ ...demoDesigns()[3], reservoir: { cans: 'two' } }));
    const { status, stderr } = design(bad, '--bom');
    expect(status).toBe(2);
    expect(stderr).toMatch(/reservoir/);
  });
});

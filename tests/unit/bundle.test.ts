import { spawn } from 'node:child_process';
import { readFileSync, statSync } from 'node:fs';
import path from 'node:path';

const FILE = path.join('node_modules/.cache/ember-rail', 'fit.mjs');
const again = (times: number) =>
  spawn(process.execPath, [
    '--input-type=module',
    '-e',
    `const { bundle } = await import('./scripts/bundle.mjs'); for (let n = 0; n < ${times}; n++) await bundle(['cli/fit']);`,
  ]);
const ended = (child: ReturnType<typeof spawn>) => new Promise<number | null>((done) => child.on('exit', done));

test('a tool that is bundled while another one starts is found whole', async () => {
  expect(await ended(again(1))).toBe(0);
  const whole = statSync(FILE).size;
  expect(whole).toBeGreaterThan(100_000);
  const bundling = again(40);
  let running = true;
  const end = ended(bundling).finally(() => (running = false));
  let halves = 0;
  for (let reads = 0; running; reads++) {
    if (readFileSync(FILE).length !== whole) halves++;
    if (reads % 50 === 0) await new Promise(setImmediate);
  }
  expect(await end).toBe(0);
  expect(halves).toBe(0);
});

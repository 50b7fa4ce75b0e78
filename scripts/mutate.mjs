// Plants faults in the files named and prints which of them no unit test noticed.
// Usage: npm run mutate -- src/core/size [more paths] [--tests 'sizing|brute'] [--every 6]
//   --tests  holds the run to the test files that match
//   --every  looks at every n-th line alone: a sample where all of it would take hours
import { readdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { ensureInstalled, root, run } from './ensure.mjs';

ensureInstalled();
const args = process.argv.slice(2);
const option = (name) => {
  const at = args.indexOf(name);
  return at < 0 ? null : args.splice(at, 2)[1];
};
const tests = option('--tests');
const every = Number(option('--every') ?? 1);
if (args.length === 0 || !(every >= 1)) {
  console.error('Say where to plant faults: npm run mutate -- src/core/size');
  process.exit(1);
}
const files = args.flatMap((a) =>
  statSync(path.join(root, a)).isDirectory()
    ? readdirSync(path.join(root, a), { recursive: true })
        .filter((f) => /\.tsx?$/.test(f))
        .sort()
        .map((f) => path.posix.join(a, f))
    : [a],
);
// What the compiler of the machine's own code reads, and what it wrote, is text to it and no program.
const TEXT = /^src\/core\/solve\/native\/(fields|compiled)\.ts$/;
// The same lines every time, spread over all files as one row of lines.
let line = 0;
const places = files
  .filter((file) => !TEXT.test(file))
  .flatMap((file) =>
    every === 1
      ? [file]
      : readFileSync(path.join(root, file), 'utf8')
          .split('\n')
          .flatMap((_, n) => (line++ % every === 0 ? [`${file}:${n + 1}-${n + 1}`] : [])),
  );
run('npx', ['stryker', 'run', '--mutate', places.join(',')], tests ? { env: { MUTATE_TESTS: tests } } : {});

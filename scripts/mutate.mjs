// Plants faults in the files named and prints which of them no unit test noticed.
// Usage: npm run mutate -- src/core/size [more paths] [--tests 'sizing|brute']
import { statSync } from 'node:fs';
import path from 'node:path';
import { ensureInstalled, root, run } from './ensure.mjs';

ensureInstalled();
const args = process.argv.slice(2);
const at = args.indexOf('--tests');
const tests = at < 0 ? null : args.splice(at, 2)[1];
if (args.length === 0) {
  console.error('Say where to plant faults: npm run mutate -- src/core/size');
  process.exit(1);
}
const files = args.map((a) => (statSync(path.join(root, a)).isDirectory() ? `${a.replace(/\/$/, '')}/**/*.ts` : a));
run('npx', ['stryker', 'run', '--mutate', files.join(',')], tests ? { env: { MUTATE_TESTS: tests } } : {});

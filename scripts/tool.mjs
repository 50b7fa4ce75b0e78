// Runs a command-line tool of src/cli: bundled the way the application is, so that its times are the application's.
// Usage: node scripts/tool.mjs solve|bench [arguments]
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { ensureInstalled, root } from './ensure.mjs';

const [name, ...args] = process.argv.slice(2);
ensureInstalled({ quiet: true });
const { bundle, bundled } = await import('./bundle.mjs');
await bundle([`cli/${name}`, 'cli/pool-thread']);
const result = spawnSync(process.execPath, [path.join(bundled, `${name}.mjs`), ...args], {
  cwd: root,
  stdio: 'inherit',
});
process.exitCode = result.status ?? 1;

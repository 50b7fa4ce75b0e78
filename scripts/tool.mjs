// Runs a command-line tool of src/cli: bundled the way the application is, so that its times are the application's.
// Usage: node scripts/tool.mjs solve|fit|diagnose|bench [arguments]
import { constants } from 'node:os';
import path from 'node:path';
import { child } from './child.mjs';
import { ensureInstalled } from './ensure.mjs';

const [name, ...args] = process.argv.slice(2);
ensureInstalled({ quiet: true });
const { bundle, bundled } = await import('./bundle.mjs');
await bundle([`cli/${name}`, 'cli/pool-thread']);
child([path.join(bundled, `${name}.mjs`), ...args]).on('exit', (code, signal) =>
  process.exit(code ?? (signal ? 128 + (constants.signals[signal] ?? 0) : 1)),
);

// Runs a command-line tool of src/cli: bundled the way the application is, so that its times are the application's.
// Usage: node scripts/tool.mjs solve|fit|diagnose|bench [arguments]
import { spawn } from 'node:child_process';
import { constants } from 'node:os';
import path from 'node:path';
import { ensureInstalled, root } from './ensure.mjs';

const [name, ...args] = process.argv.slice(2);
ensureInstalled({ quiet: true });
const { bundle, bundled } = await import('./bundle.mjs');
await bundle([`cli/${name}`, 'cli/pool-thread']);
/** The work, once it runs. */
let tool = null;
// Whoever ends this ends the work too; heard before there is any, or a signal between the two would leave it behind.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.on(signal, () => (tool ? tool.kill(signal) : process.exit(128 + constants.signals[signal])));
tool = spawn(process.execPath, [path.join(bundled, `${name}.mjs`), ...args], { cwd: root, stdio: 'inherit' });
tool.on('exit', (code, signal) => process.exit(code ?? (signal ? 128 + (constants.signals[signal] ?? 0) : 1)));

// One command to a running program: installs, builds, fills the shelf with the demo designs and serves on this machine.
import { existsSync, mkdirSync } from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { child } from './child.mjs';
import { ensureInstalled, root, run } from './ensure.mjs';

ensureInstalled();
console.log('Building…');
run('node', ['scripts/build.mjs', '--quiet']);

const file = process.env.EMBER_RAIL_DB ?? path.join(root, 'data/ember-rail.db');
mkdirSync(path.dirname(file), { recursive: true });
if (!existsSync(file)) console.log('The shelf starts with the demo designs.');

const port = await freePort(Number(process.env.PORT ?? 3000));
const server = child(['scripts/serve.mjs', '-p', String(port)], {
  stdio: ['inherit', 'ignore', 'inherit'],
  env: { ...process.env, EMBER_RAIL_DB: file, EMBER_RAIL_DEMO: '1', NEXT_TELEMETRY_DISABLED: '1' },
});
server.on('exit', (code) => process.exit(code ?? 0));
await answering(port);
console.log(
  `\n  Ember Rail: http://127.0.0.1:${port}\n\n  Ctrl C ends it. Everything is kept in ${path.relative(process.cwd(), file) || file}.`,
);

/** The wanted port, or the next one nobody listens on. */
async function freePort(wanted) {
  for (let candidate = wanted; candidate < wanted + 50; candidate++) {
    const free = await new Promise((resolve) => {
      const probe = net
        .createServer()
        .once('error', () => resolve(false))
        .once('listening', () => probe.close(() => resolve(true)));
      probe.listen(candidate, '127.0.0.1');
    });
    if (free) return candidate;
  }
  throw new Error(`no free port from ${wanted} on`);
}

async function answering(onPort) {
  for (;;) {
    try {
      await fetch(`http://127.0.0.1:${onPort}/api/designs`);
      return;
    } catch {
      await new Promise((resolve) => setTimeout(resolve, 150));
    }
  }
}

import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';

/**
 * The built program on a free port and a file of its own, for as long as `work` takes.
 * @param demo whether the demo designs are on its shelf
 * @throws Error when it does not come up
 */
export async function withBuiltServer<T>(root: string, demo: boolean, work: (base: string) => Promise<T>): Promise<T> {
  const folder = mkdtempSync(path.join(tmpdir(), 'ember-rail-bench-'));
  const port = await freePort();
  const server = spawn(process.execPath, ['scripts/serve.mjs', '-p', String(port)], {
    cwd: root,
    env: {
      ...process.env,
      EMBER_RAIL_DB: path.join(folder, 'bench.sqlite'),
      NODE_ENV: 'production',
      ...(demo ? { EMBER_RAIL_DEMO: '1' } : {}),
    },
    stdio: 'ignore',
  });
  const base = `http://127.0.0.1:${port}`;
  try {
    await up(base);
    return await work(base);
  } finally {
    server.kill();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function up(base: string): Promise<void> {
  for (let n = 0; n < 100; n++) {
    try {
      if ((await fetch(`${base}/api/designs`)).ok) return;
    } catch {
      // Not listening yet.
    }
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error('the server did not come up: run npm run build first');
}

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}

import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { PORT } from '../../playwright.config';

/** The production build on a shelf of its own, which can be killed and started again on the same file. */
export class Server {
  private process: ChildProcess | null = null;
  readonly file = path.join(mkdtempSync(path.join(tmpdir(), 'ember-')), 'shelf.db');
  readonly url: string;

  constructor(
    private readonly port = PORT,
    private readonly demo = true,
  ) {
    this.url = `http://127.0.0.1:${port}`;
  }

  async start() {
    this.process = spawn(process.execPath, [path.resolve('scripts/serve.mjs'), '-p', String(this.port)], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: {
        ...process.env,
        EMBER_RAIL_DB: this.file,
        NODE_ENV: 'production',
        NEXT_TELEMETRY_DISABLED: '1',
        ...(this.demo ? { EMBER_RAIL_DEMO: '1' } : {}),
      },
    });
    const deadline = Date.now() + 30_000;
    for (;;) {
      try {
        if ((await fetch(`${this.url}/api/designs`)).ok) return;
      } catch {
        if (Date.now() > deadline) throw new Error('the program did not start');
      }
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }

  /** Ends it without a chance to tidy up. */
  async kill() {
    const ending = this.process;
    if (!ending) return;
    this.process = null;
    const gone = new Promise((resolve) => ending.once('exit', resolve));
    ending.kill('SIGKILL');
    await gone;
  }
}

/** Names to ids of what is on the shelf. */
export async function shelf(url: string): Promise<Record<string, string>> {
  const list = (await (await fetch(`${url}/api/designs`)).json()) as { id: string; name: string }[];
  return Object.fromEntries(list.map((e) => [e.name, e.id]));
}

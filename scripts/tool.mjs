// Runs a command-line tool of src/cli: bundled the way the application is, so that its times are the application's.
// Usage: node scripts/tool.mjs solve|bench [arguments]
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { ensureInstalled, root } from './ensure.mjs';

const [name, ...args] = process.argv.slice(2);
ensureInstalled({ quiet: true });
const { buildSync } = await import('esbuild');
const outdir = path.join(root, 'node_modules/.cache/ember-rail');
buildSync({
  absWorkingDir: root,
  entryPoints: [name, 'pool-thread'].map((n) => path.join(root, `src/cli/${n}.ts`)),
  outdir,
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  alias: { '@': path.join(root, 'src') },
  logLevel: 'error',
});
const result = spawnSync(process.execPath, [path.join(outdir, `${name}.mjs`), ...args], {
  cwd: root,
  stdio: 'inherit',
});
process.exitCode = result.status ?? 1;

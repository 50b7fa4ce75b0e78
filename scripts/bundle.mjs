// Bundles programs that run beside the application for node, the way the application is bundled.
import { mkdirSync, renameSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { root } from './ensure.mjs';

export const bundled = path.join(root, 'node_modules/.cache/ember-rail');

/** @param entries files of src, without their ending; each becomes a file of its own name in `bundled` */
export async function bundle(entries) {
  const { buildSync } = await import('esbuild');
  const { outputFiles } = buildSync({
    write: false,
    absWorkingDir: root,
    entryPoints: Object.fromEntries(entries.map((e) => [path.basename(e), path.join(root, `src/${e}.ts`)])),
    outdir: bundled,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    alias: { '@': path.join(root, 'src') },
    logLevel: 'error',
  });
  mkdirSync(bundled, { recursive: true });
  // Each whole or not at all: a program started at the same moment would run the half that is written, and say nothing.
  for (const { path: file, contents } of outputFiles) {
    writeFileSync(`${file}.${process.pid}`, contents);
    renameSync(`${file}.${process.pid}`, file);
  }
}

/** What the server runs beside itself: threads to solve and to look into backups, sweeps, stand-ins for instruments. */
export const bundleServerThread = () =>
  bundle([
    'server/solver-thread',
    'server/backup-thread',
    'server/instruments/sweep-process',
    'server/instruments/stand-in-process',
  ]);

// Makes a fresh clone ready: installs the packages of the lock file when they are missing or older than it.
// Plain Node, no dependencies.
import { spawnSync } from 'node:child_process';
import { existsSync, lstatSync, statSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');

/** Runs a command in the project, its output shown; ends this process with its status when it fails. */
export function run(command, args, extra = {}) {
  const result = spawnSync(command, args, {
    cwd: root,
    stdio: 'inherit',
    ...extra,
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...extra.env },
  });
  if (result.error) {
    console.error(`Could not run ${command}: ${result.error.message}`);
    process.exit(1);
  }
  if (result.status !== 0) process.exit(result.status ?? 1);
}

export function ensureInstalled({ quiet = process.argv.includes('--quiet') } = {}) {
  const modules = path.join(root, 'node_modules');
  // A copy that borrows the packages of another one never installs over them.
  if (existsSync(modules) && lstatSync(modules).isSymbolicLink()) return;
  const mark = path.join(modules, '.package-lock.json');
  const lock = path.join(root, 'package-lock.json');
  if (existsSync(mark) && statSync(mark).mtimeMs >= statSync(lock).mtimeMs - 1000) return;
  if (!quiet) console.log('Installing packages (the database driver is compiled; a few minutes the first time)…');
  run('npm', ['ci'], quiet ? { stdio: ['ignore', 'ignore', 'inherit'] } : {});
}

if (process.argv[1] && path.resolve(process.argv[1]) === fileURLToPath(import.meta.url)) ensureInstalled();

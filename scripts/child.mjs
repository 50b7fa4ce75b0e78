// A program this one starts and stands for: whoever ends this ends that.
import { spawn } from 'node:child_process';
import { root } from './ensure.mjs';

/** Starts a Node program in the project. Signals are heard from before it begins, or one between would leave it behind. */
export function child(args, options = {}) {
  let started;
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => started.kill(signal));
  started = spawn(process.execPath, args, { cwd: root, stdio: 'inherit', ...options });
  return started;
}

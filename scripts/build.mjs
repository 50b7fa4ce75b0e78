// Builds what is served: the application, and the thread its server solves in.
import { readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { ensureInstalled, root, run } from './ensure.mjs';

ensureInstalled();
const { bundleServerThread } = await import('./bundle.mjs');
await bundleServerThread();
run('npx', ['next', 'build'], process.argv.includes('--quiet') ? { stdio: ['ignore', 'ignore', 'inherit'] } : {});

/**
 * Nearly everything the framework's own script defines is called while a page loads. So told, the browser compiles it aside
 * while it comes in; otherwise it reads it again on the page's own thread, function by function, in one long task.
 */
function hintFramework() {
  const hint = '//# allFunctionsCalledOnLoad\n';
  const { rootMainFiles } = JSON.parse(readFileSync(path.join(root, '.next/build-manifest.json'), 'utf8'));
  const files = rootMainFiles.map((file) => path.join(root, '.next', file));
  const largest = files.reduce((a, b) => (statSync(a).size < statSync(b).size ? b : a));
  const script = readFileSync(largest, 'utf8');
  if (!script.startsWith(hint)) writeFileSync(largest, hint + script);
}
hintFramework();

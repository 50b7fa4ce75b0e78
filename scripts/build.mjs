// Builds what is served: the application, and the thread its server solves in.
import { ensureInstalled, run } from './ensure.mjs';

ensureInstalled();
const { bundleServerThread } = await import('./bundle.mjs');
await bundleServerThread();
run('npx', ['next', 'build'], process.argv.includes('--quiet') ? { stdio: ['ignore', 'ignore', 'inherit'] } : {});

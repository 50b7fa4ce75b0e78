// Serves the application while it is being written.
import { ensureInstalled, run } from './ensure.mjs';

ensureInstalled();
const { bundleServerThread } = await import('./bundle.mjs');
await bundleServerThread();
run('npx', ['next', 'dev', '--hostname', '127.0.0.1']);

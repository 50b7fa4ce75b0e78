// Threads start without the loader of the main program: it is registered here before the thread's own code is read.
import { register } from 'tsx/esm/api';

register();
await import('./pool-thread.ts');

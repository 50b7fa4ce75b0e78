import type { Condition } from '@/core/circuit/condition';

/** Everything is drawn that ever is. */
export const FULL = (c: Condition) => c.load === 'full' && c.output === undefined;
/** What lasts long enough to warm parts, an output turned down included. */
export const LASTING = (c: Condition) => (c.load === 'lasting' || c.load === 'standing') && c.output !== 'shorted';
/** Nothing is drawn: volts stand highest. */
export const UNLOADED = (c: Condition) => c.load === 'none';

import type { Design } from './design';
import { designSchema } from './design-schema';
import { firstFault, type Fault } from './fault';
import { migrated } from './migrate';

/** Validates a value of unknown origin as a design. Never throws: the first fault comes back with its path. */
export function readDesign(value: unknown): { ok: true; design: Design } | { ok: false; fault: Fault } {
  if (value === null || typeof value !== 'object' || Array.isArray(value)) {
    return { ok: false, fault: { path: '', sentence: 'a design has to be a JSON object' } };
  }
  // Said first: in a foreign file every member is wrong, and that is not what helps.
  if ((value as { format?: unknown }).format !== 'ember-rail-design') {
    return { ok: false, fault: { path: 'format', sentence: 'this is not a design file of this program' } };
  }
  try {
    return {
      ok: true,
      design: designSchema.validateSync(migrated(value as Record<string, unknown>), {
        strict: true,
        abortEarly: false,
      }) as Design,
    };
  } catch (error) {
    return { ok: false, fault: firstFault(error) };
  }
}

import type { ObjectSchema } from 'yup';
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

/** The document's sections alone that are named, as a schema: put together once for each set of names. */
const parts = new Map<string, ObjectSchema<object>>();

/**
 * Whether some sections of a design are what the document lets in. No rule of the document looks from one section into
 * another: what was not changed needs no second look.
 */
export function sectionsHold(design: Design, sections: readonly (keyof Design)[]): boolean {
  const key = sections.join();
  let part = parts.get(key);
  if (!part) parts.set(key, (part = designSchema.pick(sections as never) as ObjectSchema<object>));
  return part.isValidSync(Object.fromEntries(sections.map((s) => [s, design[s]])), { strict: true });
}

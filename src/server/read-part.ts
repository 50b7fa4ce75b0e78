import { CONDITION_WORDS, KNOWN_BY, PART_KINDS, partFault, type PartDraft } from '@/core/drawer/part';

/** A value of unknown origin as a part. Never throws: what is wrong comes back as a sentence. */
export function readPart(value: unknown): { ok: true; part: PartDraft } | { ok: false; error: string } {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return { ok: false, error: 'A part has to be a JSON object.' };
  const { kind, name, ratings, known, condition, count, priceEur, place, note } = value as Record<string, unknown>;
  const texts = { name, place, note };
  for (const [key, text] of Object.entries(texts)) {
    if (typeof text !== 'string') return { ok: false, error: `The ${key} has to be text.` };
  }
  if (!PART_KINDS.includes(kind as never))
    return { ok: false, error: `There is no kind of part '${String(kind).slice(0, 40)}'.` };
  if (!KNOWN_BY.includes(known as never))
    return { ok: false, error: `How it is known has to be ${KNOWN_BY.join(', ')}.` };
  if (!CONDITION_WORDS.includes(condition as never))
    return { ok: false, error: `Its condition has to be ${CONDITION_WORDS.join(' or ')}.` };
  if (typeof count !== 'number') return { ok: false, error: 'The count has to be a whole number from 0 on.' };
  if (priceEur !== null && typeof priceEur !== 'number')
    return { ok: false, error: 'The price has to be a number, or null when it is not known.' };
  if (
    typeof ratings !== 'object' ||
    ratings === null ||
    Object.values(ratings).some((v) => v !== null && typeof v !== 'number')
  ) {
    return { ok: false, error: 'Ratings have to be numbers, or null when they are not known.' };
  }
  const part = { kind, name, ratings, known, condition, count, priceEur, place, note } as PartDraft;
  const fault = partFault(part);
  return fault ? { ok: false, error: fault } : { ok: true, part };
}

import * as yup from 'yup';
import { firstFault } from '@/core/design/fault';
import { CONDITION_WORDS, KINDS, KNOWN_BY, PART_KINDS, PART_NAME_MAX, type PartDraft, type PartKind } from './part';

/** Most letters of where a part lies, and of what is noted of it. */
const PLACE_MAX = 120;
const NOTE_MAX = 1000;
const COUNT_WORDS = 'The count has to be a whole number from 0 on.';
const PRICE_WORDS = 'The price has to be a number, or null when it is not known.';
const RATING_WORDS = 'Ratings have to be numbers, or null when they are not known.';

const text = (name: string) =>
  yup.string().strict(true).defined(`The ${name} has to be text.`).typeError(`The ${name} has to be text.`);

/** One of the ratings of a kind, with its ends. */
function rating({ label, min, max, required }: (typeof KINDS)[PartKind]['ratings'][number]) {
  return yup
    .number()
    .strict(true)
    .nullable()
    .typeError(RATING_WORDS)
    .test('known', `${label} is missing: without it the part cannot be used.`, (v) => !required || (v ?? null) !== null)
    .test('number', `${label} is not a number.`, (v) => v === null || v === undefined || Number.isFinite(v))
    .test('range', (v, ctx) =>
      v === null || v === undefined || (v >= min && v <= max)
        ? true
        : ctx.createError({
            message: `${label} of ${v} is outside what such a part can have (${min} to ${max}).`,
          }),
    );
}

function schemaOf(kind: PartKind) {
  const { name, ratings } = KINDS[kind];
  return yup
    .object({
      kind: yup.string<PartKind>().strict(true).oneOf([kind]).defined(),
      name: text('name')
        .test('name', 'The part has no name.', (v) => v.trim() !== '')
        .max(PART_NAME_MAX, `The name is longer than ${PART_NAME_MAX} letters.`),
      known: yup
        .mixed<PartDraft['known']>()
        .oneOf([...KNOWN_BY], `How it is known has to be ${KNOWN_BY.join(', ')}.`)
        .defined(`How it is known has to be ${KNOWN_BY.join(', ')}.`),
      condition: yup
        .mixed<PartDraft['condition']>()
        .oneOf([...CONDITION_WORDS], `Its condition has to be ${CONDITION_WORDS.join(' or ')}.`)
        .defined(`Its condition has to be ${CONDITION_WORDS.join(' or ')}.`),
      count: yup
        .number()
        .strict(true)
        .typeError(COUNT_WORDS)
        .defined(COUNT_WORDS)
        .integer(COUNT_WORDS)
        .min(0, COUNT_WORDS)
        .max(1e6, COUNT_WORDS),
      priceEur: yup
        .number()
        .strict(true)
        .nullable()
        .typeError(PRICE_WORDS)
        .defined(PRICE_WORDS)
        .test('price', 'A price cannot be negative.', (v) => v === null || (v >= 0 && v < 1e6)),
      place: text('place').max(PLACE_MAX, 'The place or the note is too long.'),
      note: text('note').max(NOTE_MAX, 'The place or the note is too long.'),
      ratings: yup
        .object(Object.fromEntries(ratings.map((r) => [r.key, rating(r)])))
        .strict(true)
        .typeError(RATING_WORDS)
        .required(RATING_WORDS)
        .noUnknown(
          true,
          ({ unknown }: { unknown: string }) => `There is no rating '${unknown}' for ${name.toLowerCase()}.`,
        ),
    })
    .strict(true);
}

const SCHEMAS = Object.fromEntries(PART_KINDS.map((kind) => [kind, schemaOf(kind)])) as Readonly<
  Record<PartKind, ReturnType<typeof schemaOf>>
>;

/** Everything wrong with a part, by the name of its member ('ratings.secondaryV'), each as a sentence. */
export function partFaults(part: PartDraft): Record<string, string> {
  try {
    SCHEMAS[part.kind].validateSync(part, { abortEarly: false });
    return {};
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    const faults: Record<string, string> = {};
    for (const one of error.inner) faults[one.path ?? ''] ??= one.message;
    return faults;
  }
}

/** The first thing wrong with a part, as a sentence, or null. */
export function partFault(part: PartDraft): string | null {
  const read = readPart(part);
  return read.ok ? null : read.error;
}

/** A value of unknown origin as a part. Never throws: what is wrong comes back as a sentence. */
export function readPart(value: unknown): { ok: true; part: PartDraft } | { ok: false; error: string } {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return { ok: false, error: 'A part has to be a JSON object.' };
  const { kind, name, ratings, known, condition, count, priceEur, place, note } = value as Record<string, unknown>;
  const found = PART_KINDS.find((k) => k === kind);
  if (!found) return { ok: false, error: `There is no kind of part '${String(kind).slice(0, 40)}'.` };
  // What else came along is left where it was.
  const part = { kind: found, name, ratings, known, condition, count, priceEur, place, note } as PartDraft;
  try {
    SCHEMAS[found].validateSync(part);
    return { ok: true, part };
  } catch (error) {
    return { ok: false, error: firstFault(error).sentence };
  }
}

import * as yup from 'yup';
import { fieldLimit, rangeFault, type FieldLimits, type FieldPath } from './limits';

/** Pieces every schema of the document is put together from. What a design is, is inferred from them. */

/** What a field holds: a number, or null where it may be left to what is typical. */
export type FieldValue<P extends FieldPath> = FieldLimits[P] extends { optional: string } ? number | null : number;

/** A number within the limits of its field. */
export function field<P extends FieldPath>(path: P): yup.NumberSchema<FieldValue<P>> {
  const base = yup
    .number()
    .strict(true)
    .typeError('${path} has to be a number')
    .meta(rangeOf(path))
    .test('range', (value, ctx) => {
      if (value === undefined || value === null) return true;
      const fault = rangeFault(path, value);
      return fault === null || ctx.createError({ message: fault });
    });
  const whole = fieldLimit(path).optional
    ? base.nullable().defined('${path} is missing')
    : base.required('${path} is missing');
  // Whether null is among its values is decided by the table: the compiler reads it there too.
  return whole as yup.NumberSchema<FieldValue<P>>;
}

/** What its limits say to a reader that knows only the schema. */
function rangeOf(path: FieldPath): SchemaNotes {
  const { label, unit, min, max } = fieldLimit(path);
  return { title: unit ? `${label}, ${unit}` : label, minimum: min, maximum: max };
}

/** What a schema's tests hold that its description does not. */
export interface SchemaNotes extends Record<string, unknown> {
  title?: string;
  minimum?: number;
  maximum?: number;
  /** Of one that is decided by the value: the schemas it is one of. */
  anyOf?: readonly yup.ISchema<unknown>[];
}

/** A field that counts. */
export const wholeField = <P extends FieldPath>(path: P) => field(path).integer('${path} has to be a whole number');

/** One of several words. */
export const oneOf = <const T extends string>(values: readonly T[]) =>
  yup
    .string<T>()
    .strict(true)
    .required('${path} is missing')
    .oneOf([...values], `\${path} has to be one of ${values.join(', ')}`);

/** One of several numbers; `words` says which. */
export const oneOfNumbers = <const T extends number>(values: readonly T[], words: string) =>
  yup
    .number<T>()
    .strict(true)
    .required('${path} is missing')
    .oneOf([...values], `\${path} has to be ${words}`);

export const group = <T extends yup.ObjectShape>(shape: T) =>
  yup
    .object(shape)
    .strict(true)
    .noUnknown(true, '${path} has a member that no design has: ${unknown}')
    .required('${path} is missing')
    .typeError('${path} has to be a group of values');

export const flag = yup.boolean().strict(true).required('${path} is missing');

/** Text that may be empty. */
export const text = (max: number) =>
  yup.string().strict(true).defined('${path} is missing').max(max, `\${path} is longer than ${max} letters`);

/** A list of at most so many; `too` is said of more. */
export const list = <T>(of: yup.ISchema<T>, max: number, too: string) =>
  yup.array().strict(true).required('${path} is missing').max(max, `\${path} holds more than ${too}`).of(of);

const NOTHING = yup
  .mixed<never>()
  .nullable()
  .defined()
  .oneOf([null as never]);

/** The value, or null for none. */
export function orNull<S extends yup.ISchema<unknown>>(schema: S): yup.Lazy<yup.InferType<S> | null> {
  return yup
    .lazy((value: unknown) => (value === null ? NOTHING : schema))
    .meta({ anyOf: [NOTHING, schema] } satisfies SchemaNotes) as yup.Lazy<yup.InferType<S> | null>;
}

/** What each kind holds beside its name. */
type Shapes = Readonly<Record<string, yup.ObjectShape>>;
/** One of the kinds, told apart by `kind`. */
export type OfKinds<S extends Shapes> = {
  [K in keyof S]: { kind: K } & yup.InferType<ReturnType<typeof group<S[K]>>>;
}[keyof S];

/** A group of one of several kinds, each with members of its own. */
export function byKind<S extends Shapes>(shapes: S): yup.Lazy<OfKinds<S>> {
  const kinds = Object.keys(shapes);
  const made = new Map(kinds.map((kind) => [kind, group({ kind: oneOf([kind]), ...shapes[kind] })]));
  const none = group({ kind: oneOf(kinds) });
  return yup
    .lazy((value: unknown) => made.get(String((value as { kind?: unknown } | null)?.kind)) ?? none)
    .meta({ anyOf: [...made.values()] } satisfies SchemaNotes) as unknown as yup.Lazy<OfKinds<S>>;
}

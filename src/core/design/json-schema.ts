import * as yup from 'yup';
import { designSchema } from './design-schema';
import { DESIGN_VERSION } from './migrate';
import type { SchemaNotes } from './schema-pieces';

type JsonSchema = Record<string, unknown>;

/**
 * The document as a JSON Schema (2020-12), made from the very schema it is read with. What depends on two values at once
 * (no 78S for 5 V) is left to the program: every document it reads is valid here, not the other way round.
 */
export function designJsonSchema(): JsonSchema {
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    $id: `urn:ember-rail:design:${DESIGN_VERSION}`,
    title: `Ember Rail design, version ${DESIGN_VERSION}`,
    description:
      'A transformer-fed linear DC supply. SI units but for per cent and millimetres, which are in the names.',
    ...schemaOf(designSchema),
  };
}

function schemaOf(schema: unknown): JsonSchema {
  const notes = (schema as { meta(): SchemaNotes | undefined }).meta() ?? {};
  if (notes.anyOf) return { anyOf: notes.anyOf.map(schemaOf) };
  const described = (schema as yup.AnySchema).describe();
  const { title, minimum, maximum } = notes;
  const said = {
    ...(title === undefined ? {} : { title }),
    ...(minimum === undefined ? {} : { minimum }),
    ...(maximum === undefined ? {} : { maximum }),
    ...(described.oneOf.length > 0 ? { enum: described.oneOf } : {}),
    ...ruled(described as yup.SchemaDescription),
  };
  const typed = (type: string): JsonSchema => ({ type: described.nullable ? [type, 'null'] : type, ...said });
  if (schema instanceof yup.ObjectSchema) return { ...typed('object'), ...members(schema) };
  if (schema instanceof yup.ArraySchema)
    return { ...typed('array'), ...(schema.innerType ? { items: schemaOf(schema.innerType) } : {}) };
  return described.type === 'mixed' ? said : typed(described.type);
}

function members({ fields }: yup.AnyObjectSchema): JsonSchema {
  const named = Object.entries(fields as Record<string, unknown>);
  // A group of anything: what a part set in the design when it was taken.
  if (named.length === 0) return {};
  return {
    additionalProperties: false,
    required: named.map(([name]) => name),
    properties: Object.fromEntries(named.map(([name, member]) => [name, schemaOf(member)])),
  };
}

const KEYS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  number: { min: 'minimum', max: 'maximum' },
  string: { min: 'minLength', max: 'maxLength', required: 'minLength' },
  array: { min: 'minItems', max: 'maxItems' },
};

/** What the tests of a description come to. */
function ruled({ type, tests }: yup.SchemaDescription): JsonSchema {
  const rules: JsonSchema = {};
  for (const { name = '', params } of tests) {
    const key = KEYS[type]?.[name];
    // A text that is required is one that says something.
    if (key) rules[key] = name === 'required' ? 1 : params?.[name];
    if (name === 'integer') rules['multipleOf'] = 1;
    if (params?.['regex'] instanceof RegExp) rules['pattern'] = params['regex'].source;
  }
  return rules;
}

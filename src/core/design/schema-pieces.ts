import * as yup from 'yup';
import { fieldLimit, rangeFault, type FieldPath } from './limits';

/** Pieces every schema of the document is put together from. */

export function field(path: FieldPath) {
  const base = yup
    .number()
    .strict(true)
    .typeError('${path} has to be a number')
    .test('range', (value, ctx) => {
      if (value === undefined || value === null) return true;
      const fault = rangeFault(path, value);
      return fault === null || ctx.createError({ message: fault });
    });
  return fieldLimit(path).optional
    ? base.nullable().defined('${path} is missing')
    : base.required('${path} is missing');
}

export const oneOf = (values: readonly string[]) =>
  yup
    .string()
    .strict(true)
    .required('${path} is missing')
    .oneOf([...values], `\${path} has to be one of ${values.join(', ')}`);
export const group = <T extends yup.ObjectShape>(shape: T) =>
  yup
    .object(shape)
    .strict(true)
    .noUnknown(true, '${path} has a member that no design has: ${unknown}')
    .required('${path} is missing')
    .typeError('${path} has to be a group of values');

export const flag = yup.boolean().strict(true).required('${path} is missing');

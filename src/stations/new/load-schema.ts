import * as yup from 'yup';
import { fieldLimit, NAME_MAX, rangeFault, type FieldPath } from '@/core/design/limits';
import { parseQuantity } from '@/core/quantity/parse';

/** The load as typed: texts, so that nothing a person wrote is lost to a fault. */
export interface LoadForm {
  name: string;
  outputV: string;
  outputA: string;
  tolerancePct: string;
  rippleVpp: string;
  kind: 'current' | 'resistance';
  mains: string;
}

function quantity(path: FieldPath) {
  return yup
    .string()
    .defined()
    .test('quantity', (text, ctx) => {
      const parsed = parseQuantity(text, fieldLimit(path).unit);
      if (!parsed.ok) return ctx.createError({ message: parsed.error });
      const fault = rangeFault(path, parsed.value);
      return fault === null || ctx.createError({ message: fault });
    });
}

export const loadSchema: yup.ObjectSchema<LoadForm> = yup.object({
  name: yup.string().trim().defined().max(NAME_MAX, `${NAME_MAX} letters fit on the label.`),
  outputV: quantity('demand.outputV'),
  outputA: quantity('demand.outputA'),
  tolerancePct: quantity('demand.tolerancePct'),
  rippleVpp: quantity('demand.rippleVpp'),
  kind: yup.string<'current' | 'resistance'>().oneOf(['current', 'resistance']).defined(),
  mains: yup.string().defined(),
});

/** The value of a field that passed the schema. */
export function valueOf(text: string, path: FieldPath): number {
  const parsed = parseQuantity(text, fieldLimit(path).unit);
  if (!parsed.ok) throw new RangeError(parsed.error);
  return parsed.value;
}

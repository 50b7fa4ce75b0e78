import { yupResolver } from '@hookform/resolvers/yup';
import * as yup from 'yup';
import { NAME_MAX } from '@/core/design/how-many';
import { fieldLimit, rangeFault, type FieldPath } from '@/core/design/limits';
import { parseLoad } from '@/core/quantity/load';
import { parseQuantity } from '@/core/quantity/parse';
import { FEEDS, type Feed } from '@/core/size/feeds';
import type { LoadForm } from './load-values';

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

/** Amperes, or a resistor or watts at the volts beside it. */
export function load() {
  return yup
    .string()
    .defined()
    .test('load', (text, ctx) => {
      const { outputV } = ctx.parent as LoadForm;
      const volts = parseQuantity(outputV, 'V');
      const parsed = parseLoad(text, volts.ok && volts.value > 0 ? volts.value : 1);
      if (!parsed.ok) return ctx.createError({ message: parsed.error });
      const fault = rangeFault('demand.outputA', parsed.value);
      return fault === null || ctx.createError({ message: fault });
    });
}

/** A number of the source in hand, where there is one. */
function whereFed(pathOf: (feed: Feed) => FieldPath) {
  return yup
    .string()
    .defined()
    .test('feed', (text, ctx) => {
      const { feed } = ctx.parent as LoadForm;
      if (feed === 'mains') return true;
      const path = pathOf(feed);
      const parsed = parseQuantity(text, fieldLimit(path).unit);
      if (!parsed.ok) return ctx.createError({ message: parsed.error });
      const fault = rangeFault(path, parsed.value);
      return fault === null || ctx.createError({ message: fault });
    });
}

export const loadSchema: yup.ObjectSchema<LoadForm> = yup.object({
  name: yup.string().trim().defined().max(NAME_MAX, `${NAME_MAX} letters fit on the label.`),
  outputV: quantity('demand.outputV'),
  outputA: load(),
  tolerancePct: quantity('demand.tolerancePct'),
  rippleVpp: quantity('demand.rippleVpp'),
  kind: yup.string<'current' | 'resistance' | 'power'>().oneOf(['current', 'resistance', 'power']).defined(),
  mains: yup.string().defined(),
  feed: yup.string<Feed>().oneOf(FEEDS).defined(),
  feedV: whereFed((feed) => (feed === 'ac-adapter' ? 'transformer.ratedV' : 'source.ratedV')),
  feedAmount: whereFed((feed) => (feed === 'battery' ? 'source.capacityAh' : 'source.ratedA')),
});

export const loadResolver = yupResolver(loadSchema);

import { blankDesign } from '@/core/design/defaults';
import { applyPatch, type Design, type Mains } from '@/core/design/design';
import { openVolts, sourceLimitA, sourceOhm, type DcSource } from '@/core/parts/dc-source';
import { formatNominal } from '@/core/quantity/format';
import { CAPACITOR_VOLTS } from '@/core/quantity/preferred';
import { designFromTransformer } from './from-transformer';
import { feedPatch, type Feed } from './feeds';

/** A battery is drawn empty in so many hours at its rated load: a rule of thumb for a first design. */
const HOURS = 10;
/** What a first reservoir behind a DC source holds, F: it only rides over contacts. */
const FIRST_RESERVOIR_F = 100e-6;

/**
 * A first design around a source in hand: an AC adapter as its transformer, a DC adapter or a battery with nothing but a
 * reservoir behind it, and the load it bears. Everything in it is a starting point to be judged and changed.
 * @param volts as printed, V; @param amount A of an adapter, Ah of a battery
 */
export function designFromSource(feed: Exclude<Feed, 'mains'>, volts: number, amount: number, mains: Mains): Design {
  const patch = feedPatch(feed, volts, amount)!;
  if (feed === 'ac-adapter') {
    const name = `${formatNominal(volts, 'V')} ${formatNominal(amount, 'A')} AC adapter`;
    return applyPatch(designFromTransformer(volts, volts * amount, mains), { ...patch, name });
  }
  const source = patch.source as DcSource;
  const outputA = Number((feed === 'battery' ? amount / HOURS : (sourceLimitA(source) ?? amount)).toPrecision(2));
  // Half used, at the volts its own resistance leaves.
  const outputV = Number((openVolts(source, 'nominal') - outputA * sourceOhm(source)).toPrecision(3));
  const highV = openVolts(source, 'high');
  return applyPatch(
    blankDesign(
      `${formatNominal(volts, 'V')} ${feed === 'battery' ? 'battery' : 'DC adapter'}`,
      { outputV, outputA, tolerancePct: 25, rippleVpp: Number((0.1 * outputV).toPrecision(2)), kind: 'current' },
      mains,
    ),
    {
      ...patch,
      reservoir: {
        capacitanceF: FIRST_RESERVOIR_F,
        ratedV: CAPACITOR_VOLTS.find((v) => v >= highV / 0.85) ?? CAPACITOR_VOLTS[CAPACITOR_VOLTS.length - 1]!,
      },
    },
  );
}

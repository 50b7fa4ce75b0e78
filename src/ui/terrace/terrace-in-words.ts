import { dcSourceOf, termsOf } from '@/core/design/source';
import { levelsOf } from '@/core/picture/levels';
import type { Picture } from '@/core/picture/picture';
import { formatQuantity } from '@/core/quantity/format';

/** The drawing in one sentence, for those who do not see it. */
export function terraceInWords(picture: Picture): string {
  const { low, nominal, high } = picture.points;
  const say = termsOf(picture.design);
  const parts = [
    dcSourceOf(picture.design)
      ? `Terrace: the ${say.source} stands at ${formatQuantity(levelsOf(nominal).openPeakV, 'V')}`
      : `Terrace: the winding peaks at ${formatQuantity(levelsOf(nominal).openPeakV, 'V')}`,
    `the reservoir breathes from ${formatQuantity(nominal.rail.minV, 'V')} to ${formatQuantity(nominal.rail.maxV, 'V')} at ${say.nominal}, lowest ${formatQuantity(low.rail.minV, 'V')} at ${say.low}, highest ${formatQuantity(high.rail.maxV, 'V')} at ${say.high}`,
  ];
  if (picture.neededV !== null) parts.push(`the regulator needs ${formatQuantity(picture.neededV, 'V')}`);
  parts.push(`the output is ${formatQuantity(nominal.outputMeanV, 'V')}`);
  return `${parts.join('; ')}.`;
}

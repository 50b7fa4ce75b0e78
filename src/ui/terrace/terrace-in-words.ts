import { levelsOf, type Picture } from '@/core/judge/picture';
import { formatQuantity } from '@/core/quantity/format';

/** The drawing in one sentence, for those who do not see it. */
export function terraceInWords(picture: Picture): string {
  const { low, nominal, high } = picture.points;
  const parts = [
    `Terrace: the winding peaks at ${formatQuantity(levelsOf(nominal).openPeakV, 'V')}`,
    `the reservoir breathes from ${formatQuantity(nominal.rail.minV, 'V')} to ${formatQuantity(nominal.rail.maxV, 'V')} at nominal line, lowest ${formatQuantity(low.rail.minV, 'V')} at low line, highest ${formatQuantity(high.rail.maxV, 'V')} at high line`,
  ];
  if (picture.neededV !== null) parts.push(`the regulator needs ${formatQuantity(picture.neededV, 'V')}`);
  parts.push(`the output is ${formatQuantity(nominal.outputMeanV, 'V')}`);
  return `${parts.join('; ')}.`;
}

import { ofDiodeClass } from '@/core/design/diode-edit';
import { dcSourceOf, hasDiodes } from '@/core/design/source';
import { openVolts } from '@/core/parts/dc-source';
import { diodeOf } from '@/core/parts/diode';
import { formatQuantity } from '@/core/quantity/format';
import type { Rule } from '../rule';
import { chosen, typical } from '@/core/picture/working';

/** Backwards volts a polarised part puts up with, V: an electrolytic, or the diode inside a regulator. */
const PUT_UP_WITH_V = 1;

/** What reaches the reservoir when the leads of a DC source are swapped. */
export const reversePolarity: Rule = {
  title: 'Leads swapped',
  station: 'rectifier',
  scope: 'supply',
  occasion: 'once',
  decides: [],
  find({ study: { design } }) {
    const dc = dcSourceOf(design);
    if (!dc) return null;
    const openV = openVolts(dc, 'high');
    const guarded = hasDiodes(design);
    const keyed = design.mainsSide.polarised;
    const diode = diodeOf(design.rectifier);
    const value = guarded || keyed ? 0 : openV;
    return {
      value,
      limit: PUT_UP_WITH_V,
      relation: 'at most',
      wanted: PUT_UP_WITH_V,
      tell: () => ({
        figure: {
          id: 'reverse-polarity',
          label: 'Backwards across the reservoir with the leads swapped',
          unit: 'V',
          origin: 'formula',
          expression: guarded
            ? 'the diode blocks'
            : keyed
              ? 'the plug goes in one way round only'
              : 'open-circuit volts of the source',
          inputs: [
            chosen('source, at its highest', openV, 'V'),
            ...(guarded ? [typical('the diode stands', diode.reverseV, 'V')] : []),
          ],
          source: 'A diode stands in the lead, a plug is keyed, or the whole source drives backwards.',
          assumes: keyed ? ['The plug stays the one it is.'] : ['No keyed plug does that work.'],
        },
        limitSource: 'Electrolytics and regulators put up with about a volt backwards.',
        sentence: guarded
          ? `Swapped leads do nothing: ${diode.name.split(',')[0]!.toLowerCase()} blocks them.`
          : keyed
            ? 'The plug is keyed: its leads cannot be swapped.'
            : `Swapped leads put ${formatQuantity(openV, 'V')} backwards across everything.`,
        reason: 'It happens once to every lead that can be swapped; an electrolytic vents, a regulator shorts.',
      }),
    };
  },
  cures: (design) => {
    const { source } = design;
    if (source.kind === 'mains' || source.reverseDiode) return [];
    return [
      {
        label: 'Schottky diode in the lead',
        patch: { source: { ...source, reverseDiode: true }, rectifier: ofDiodeClass('sk-3a') },
      },
      {
        label: 'Silicon diode in the lead',
        patch: { source: { ...source, reverseDiode: true }, rectifier: ofDiodeClass('si-3a') },
      },
      { label: 'A keyed plug', patch: { mainsSide: { polarised: true } } },
    ];
  },
};

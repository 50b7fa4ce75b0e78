import { dcSourceOf, hasDiodes } from '@/core/design/source';
import { openVolts } from '@/core/parts/dc-source';
import { diodeOf } from '@/core/parts/diode';
import { formatQuantity } from '@/core/quantity/format';
import type { Rule } from '../verdict';

/** Backwards volts a polarised part puts up with, V: an electrolytic, or the diode inside a regulator. */
const PUT_UP_WITH_V = 1;

/** What reaches the reservoir when the leads of a DC source are swapped. A caution: plugs may be keyed. */
export const reversePolarity: Rule = {
  id: 'reverse-polarity',
  title: 'Leads swapped',
  station: 'rectifier',
  advisory: true,
  find({ design }) {
    const dc = dcSourceOf(design);
    if (!dc) return null;
    const openV = openVolts(dc, 'high');
    const guarded = hasDiodes(design);
    const diode = diodeOf(design.rectifier);
    const value = guarded ? 0 : openV;
    return {
      figure: {
        id: 'reverse-polarity',
        label: 'Backwards across the reservoir with the leads swapped',
        value,
        unit: 'V',
        origin: 'formula',
        expression: guarded ? 'the diode blocks' : 'open-circuit volts of the source',
        inputs: [
          { label: 'source, at its highest', value: openV, unit: 'V', origin: 'chosen' },
          ...(guarded
            ? [{ label: 'the diode stands', value: diode.reverseV, unit: 'V' as const, origin: 'typical' as const }]
            : []),
        ],
        source: 'Either a diode stands in the lead, or the whole source drives backwards.',
        assumes: ['No keyed plug or fuse does that work.'],
      },
      limit: PUT_UP_WITH_V,
      limitSource: 'Electrolytics and regulators put up with about a volt backwards.',
      relation: 'at most',
      wantedMargin: PUT_UP_WITH_V,
      sentence: guarded
        ? `Swapped leads do nothing: ${diode.name.split(',')[0]!.toLowerCase()} blocks them.`
        : `Swapped leads put ${formatQuantity(openV, 'V')} backwards across everything.`,
      reason: 'It happens once to every lead that can be swapped; an electrolytic vents, a regulator shorts.',
    };
  },
  cures: (design) => {
    const { source } = design;
    if (source.kind === 'mains' || source.reverseDiode) return [];
    return [
      {
        label: 'Schottky diode in the lead',
        patch: { source: { ...source, reverseDiode: true }, rectifier: { diode: 'sk-3a', rated: null } },
      },
      {
        label: 'Silicon diode in the lead',
        patch: { source: { ...source, reverseDiode: true }, rectifier: { diode: 'si-3a', rated: null } },
      },
    ];
  },
};

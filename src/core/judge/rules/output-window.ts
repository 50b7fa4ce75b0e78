import type { Edit } from '@/core/design/design';
import { windowOf } from '@/core/design/outputs';
import { termsOf } from '@/core/design/source';
import { REGULATOR_SIZES } from '@/core/parts/regulators/fixed';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { biggerReservoir, fullWave, transformerSize, windingVolts } from '../cures';
import type { Rule } from '../rule';
import { chosen, simulated, typical } from '@/core/picture/working';

/** Everything a load may see against what it puts up with, the regulator's spread included. */
export const outputWindow: Rule = {
  title: 'Output within its window',
  station: 'load',
  scope: 'output',
  occasion: (c) => c.output === undefined && !c.alone,
  decides: ['transformer', 'choke', 'regulator'],
  early: 2,
  find({ design, output, model, at }) {
    const { demand } = output;
    // A load that is never unplugged sees nothing of a supply without load.
    if (demand.leastA > 0 && at.at.load === 'none') return null;
    // Where it can be set, it is judged by how well it stays where it was set.
    const set = demand.range && model ? model.outputV : demand.outputV;
    const { lowV, highV } =
      demand.range && model ? windowOf({ ...demand, outputV: set, window: null }) : windowOf(demand);
    const spread = model?.spread ?? 0;
    const minV = at.outputMinV * (1 - spread);
    const maxV = at.outputMaxV * (1 + spread);
    const middle = (lowV + highV) / 2;
    const below = (100 * (middle - minV)) / middle;
    const above = (100 * (maxV - middle)) / middle;
    const limit = (50 * (highV - lowV)) / middle;
    const low = below >= above;
    return {
      value: Math.max(below, above),
      worstOf: [below, above],
      limit,
      relation: 'at most',
      wanted: Math.min(0.15 * limit, 1),
      tell: () => {
        const say = termsOf(design);
        return {
          figure: {
            id: 'output-window',
            label: 'Largest deviation from the middle of its window',
            unit: '%',
            origin: model ? 'formula' : 'simulated',
            expression: 'largest of (middle − lowest) and (highest − middle), over the middle',
            inputs: [
              chosen('window from', lowV, 'V'),
              chosen('to', highV, 'V'),
              simulated('lowest', minV, 'V'),
              simulated('highest', maxV, 'V'),
              ...(model ? [typical('spread of the regulator', 100 * spread, '%')] : []),
            ],
            source: model ? model.spreadSource : 'Periodic steady state.',
            assumes: model ? [] : ['The load may draw as little as its table says, or nothing.'],
          },
          limitSource: 'What your load allows.',
          sentence: `${low ? formatQuantity(minV, 'V') : formatQuantity(maxV, 'V')} where ${formatNominal(Number(lowV.toPrecision(4)), 'V')} to ${formatNominal(Number(highV.toPrecision(4)), 'V')} is allowed.`,
          reason: low
            ? `Too low and the load misbehaves with the ${say.low === 'low line' ? 'mains at its lowest' : say.low}.`
            : 'Too high and the load may not survive being the only thing switched on.',
        };
      },
    };
  },
  cures: (design): Edit[] => {
    const { regulator, demand } = design;
    const right = REGULATOR_SIZES.filter((s) => s.outputsV.includes(demand.outputV) && s.ratedA >= demand.outputA)
      .filter((s) => regulator.kind !== 'fixed' || regulator.outputV !== demand.outputV || regulator.size !== s.id)
      .map((s): Edit => ({
        label: `Regulator ${s.partNumber(demand.outputV)}`,
        patch: { regulator: { kind: 'fixed', size: s.id, outputV: demand.outputV } },
      }));
    return [
      ...right,
      ...windingVolts(design, [1, 2, -1, -2]),
      ...biggerReservoir(design, [1, 2, 3]),
      ...transformerSize(design, [1, 2, 3]),
      ...fullWave(design),
    ];
  },
};

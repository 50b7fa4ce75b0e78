import type { Edit } from '@/core/design/design';
import { deratedBy, PASS_TRANSISTORS } from '@/core/parts/transistor';
import { SHARING_V } from '@/core/parts/regulators/pass-stage';
import { formatQuantity } from '@/core/quantity/format';
import { emitterResistors, morePasses, windingVolts } from '../cures';
import type { Rule } from '../rule';
import { chosen, classed, computed, simulated } from '@/core/picture/working';

/** Whether the pass transistors stay inside their safe operating area: loaded, at the lowest output, shorted. */
export const safeArea: Rule = {
  title: 'Safe area of the pass transistors',
  station: 'regulator',
  scope: 'output',
  occasion: (c) => c.load !== 'none',
  decides: ['transistor'],
  followsSink: true,
  find({ model, at, output }) {
    if (!model?.pass.safeA) return null;
    const { pass } = model;
    const behind = at.ahead ? Math.min(at.rail.maxV, at.ahead.holdsV) : at.rail.maxV;
    const volts = Math.max(0, behind - at.outputMeanV);
    const amps = at.outputMeanA / pass.count;
    const caseC = at.heat ? at.heat.caseC : 25;
    const derated = deratedBy(caseC, pass.junctionMaxC);
    const allowed = Math.max(derated.share * pass.safeA!(volts), 1e-6);
    const used = amps / allowed;
    if (at.at.output !== undefined && at.at.of !== output.id && at.outputMeanA === 0) return null;
    return {
      value: 100 * used,
      limit: 100,
      relation: 'at most',
      wanted: 20,
      edge: derated.edge,
      tell: () => ({
        figure: {
          id: 'safe-area',
          label: 'Share of the safe area in use',
          unit: '%',
          origin: 'formula',
          ...(used > 10 ? { words: 'more than ten times its safe area' } : {}),
          expression: 'current through each / what it bears at the volts across it, case as warm as it gets',
          inputs: [
            simulated('across it', volts, 'V'),
            simulated('through each', amps, 'A'),
            classed(model, 'powerW', 'it bears there', allowed, 'A'),
            computed('case', caseC, '°C'),
          ],
          source:
            'Power to the second breakdown, then falling with the 2.4th power of the volts; derated with the case.',
          assumes: [
            pass.fitted === 1
              ? 'One transistor.'
              : pass.count > 1
                ? 'The current shares by the emitter resistors.'
                : 'Nothing makes them share: one of them takes all of it.',
            'Direct current, not a pulse.',
          ],
        },
        limitSource: 'Its safe operating area: beyond it a hot spot runs away within milliseconds.',
        sentence: `${formatQuantity(amps, 'A')} each at ${formatQuantity(volts, 'V')}, where ${formatQuantity(allowed, 'A')} are borne.`,
        reason: 'Above 30 to 40 V a bipolar transistor bears far less than its watts say.',
      }),
    };
  },
  cures: (design): Edit[] => {
    const { regulator } = design;
    if (!('transistor' in regulator)) return [];
    return [
      ...emitterResistors(design),
      ...morePasses(design, [1, 2, 3]),
      ...PASS_TRANSISTORS.filter((t) => t.id !== regulator.transistor).map((t) => ({
        label: t.name,
        patch: { regulator: { ...regulator, transistor: t.id } },
      })),
      ...windingVolts(design, [-1, -2]),
    ];
  },
};

/** Whether transistors side by side share their current at all. */
export const passSharing: Rule = {
  title: 'Transistors share the current',
  station: 'regulator',
  scope: 'output',
  occasion: 'once',
  decides: ['transistor'],
  find({ output: { regulator }, model }) {
    if (!model || !('passes' in regulator) || regulator.passes < 2) return null;
    const value = (regulator.emitterOhm * model.limitA) / regulator.passes;
    return {
      value,
      limit: SHARING_V,
      relation: 'at least',
      wanted: SHARING_V,
      tell: () => ({
        figure: {
          id: 'pass-sharing',
          label: 'Across each emitter resistor at the limit',
          unit: 'V',
          origin: 'formula',
          expression: 'limit / transistors × emitter resistor',
          inputs: [
            computed('limit', model.limitA, 'A'),
            chosen('transistors', regulator.passes, ''),
            chosen('emitter resistor', regulator.emitterOhm, 'ohm'),
          ],
          source: 'A tenth to half a volt makes transistors of one kind share within a fifth.',
          assumes: ['Transistors of the same kind on the same sink.'],
        },
        limitSource: `Below ${formatQuantity(SHARING_V, 'V')} the warmest takes what the others should.`,
        sentence: `${formatQuantity(value, 'V')} across each of ${regulator.passes}.`,
        reason: 'A warm transistor wants less base volts for the same current: without resistors it takes ever more.',
      }),
    };
  },
  cures: (design): Edit[] => emitterResistors(design),
};

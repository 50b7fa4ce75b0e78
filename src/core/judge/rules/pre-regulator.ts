import type { Edit } from '@/core/design/design';
import { deratedBy } from '@/core/parts/transistor';
import { aheadModel } from '@/core/parts/regulators/ahead';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { biggerReservoir, otherAhead, sinks, windingVolts } from '../cures';
import { absurdHeat, heatWords } from '../heat-words';
import { FULL, LASTING, type Rule } from '../rule';
import { thermalInterface } from '@/core/parts/heatsink';
import { chosen, computed, simulated, typical } from '@/core/picture/working';

/** Whether the first of two in cascade holds what it should. A caution: when it lets go the second still regulates. */
export const preRegulatorHolds: Rule = {
  title: 'Pre-regulator holds',
  station: 'regulator',
  scope: 'output',
  occasion: FULL,
  decides: [],
  find({ design, at }) {
    const model = aheadModel(design.preRegulator);
    if (!model || !at.ahead) return null;
    const { headroomV, holdsV } = at.ahead;
    return {
      value: headroomV,
      limit: 0,
      relation: 'at least',
      wanted: 0.5,
      caution: true,
      tell: () => ({
        figure: {
          id: 'pre-regulator',
          label: 'Headroom of the pre-regulator',
          unit: 'V',
          origin: 'simulated',
          expression: 'lowest reservoir voltage − (what it holds + its dropout)',
          inputs: [
            simulated('lowest reservoir voltage', at.rail.minV, 'V'),
            chosen('it holds', holdsV, 'V'),
            typical('its dropout', at.rail.minV - headroomV - holdsV, 'V'),
          ],
          source: 'Periodic steady state; dropout typical of the class.',
          assumes: ['The second goes on regulating while its own input stays high enough.'],
        },
        limitSource: 'Below zero it passes its share of the ripple on.',
        sentence:
          headroomV >= 0
            ? `${model.name} holds ${formatNominal(Number(holdsV.toPrecision(3)), 'V')} with ${formatQuantity(headroomV, 'V')} to spare.`
            : `${model.name} lets go in the valleys, ${formatQuantity(-headroomV, 'V')} short: its rejection is lost there.`,
        reason: 'What the first lets through the second has to take down alone.',
      }),
    };
  },
  cures: (design): Edit[] => {
    const { preRegulator } = design;
    return [
      ...(preRegulator.kind === 'tracking' && preRegulator.aboveV > 3.5
        ? [{ label: 'Track 3 V above the output', patch: { preRegulator: { ...preRegulator, aboveV: 3 } } }]
        : []),
      ...biggerReservoir(design, [1, 2]),
      ...windingVolts(design, [1, 2]),
    ];
  },
};

/** The pre-regulator's own junction, on the sink it shares. */
export const preRegulatorHeat: Rule = {
  title: 'Pre-regulator junction',
  station: 'regulator',
  scope: 'output',
  occasion: LASTING,
  decides: ['sink'],
  followsSink: true,
  find({ design, at }) {
    const model = aheadModel(design.preRegulator);
    if (!model || !at.ahead) return null;
    const { junctionC, watts } = at.ahead;
    const cooled = model.takesSink && at.heat !== null && at.heat.sink !== null;
    return {
      value: junctionC,
      limit: model.junctionMaxC,
      relation: 'at most',
      wanted: 20,
      tell: () => ({
        figure: {
          id: 'pre-regulator-heat',
          label: 'Junction of the pre-regulator',
          unit: '°C',
          origin: 'formula',
          ...absurdHeat(junctionC),
          expression: cooled
            ? 'sink + its watts × (junction to case + case to sink)'
            : 'air + its watts × junction to free air',
          inputs: [
            ...(cooled
              ? [computed('sink', at.heat!.sinkC, '°C')]
              : [computed('air', at.heat?.airC ?? design.heat.ambientC, '°C')]),
            simulated('watts in it', watts, 'W'),
            ...(cooled
              ? [
                  typical('junction to case', model.jcKPerW, 'K/W'),
                  typical('case to sink', thermalInterface(design.heat.interface).kPerW, 'K/W'),
                ]
              : [typical('junction to free air', model.jaKPerW, 'K/W')]),
          ],
          source: cooled ? 'Both on one sink: each warms the other through it.' : 'Steady heat flow.',
          assumes: cooled ? ['Insulated from each other where their metals differ.'] : [],
        },
        limitSource: `Highest junction temperature of the class, ${model.junctionMaxC} °C; 20 K kept in hand.`,
        sentence: `${heatWords(junctionC)} with ${formatQuantity(watts, 'W')} of the ${formatQuantity(watts + at.regulatorW, 'W')} in it.`,
        reason: 'Two parts share the heat only as their volts are shared.',
      }),
    };
  },
  cures: (design): Edit[] => [...sinks(design, [1, 2, 3, 5]), ...windingVolts(design, [-1, -2])],
};

/** What flows through the first of two, shorts included, against its rating and its safe area. */
export const preRegulatorArea: Rule = {
  title: 'Pre-regulator current and safe area',
  station: 'regulator',
  scope: 'output',
  occasion: (c) => c.load !== 'none',
  decides: ['transistor'],
  find({ design, at }) {
    const model = aheadModel(design.preRegulator);
    if (!model || !at.ahead || !at.heat) return null;
    const { acrossV, amps } = at.ahead;
    const derated = deratedBy(at.heat.caseC, model.junctionMaxC);
    const area = model.safeA ? derated.share * model.safeA(acrossV) : Infinity;
    const allowed = Math.max(1e-6, Math.min(model.ratedA, area));
    return {
      value: (100 * amps) / allowed,
      limit: 100,
      relation: 'at most',
      wanted: 15,
      edge: derated.edge,
      tell: () => ({
        figure: {
          id: 'pre-regulator-area',
          label: 'Share of what the pre-regulator bears',
          unit: '%',
          origin: 'formula',
          ...(amps > 10 * allowed ? { words: 'more than ten times what it bears' } : {}),
          expression: 'current / smaller of rated current and safe area at the volts across it',
          inputs: [
            simulated('through it', amps, 'A'),
            simulated('across it', acrossV, 'V'),
            typical('rated', model.ratedA, 'A'),
            ...(Number.isFinite(area) ? [typical('safe area there', area, 'A')] : []),
          ],
          source: 'Class of the part, derated with its case.',
          assumes: ['Direct current, not a pulse.'],
        },
        limitSource: 'Its rated current, and the curve its transistor bears.',
        sentence: `${formatQuantity(amps, 'A')} at ${formatQuantity(acrossV, 'V')} across it, where ${formatQuantity(allowed, 'A')} are borne.`,
        reason: 'What stands first takes the volts the second is spared, and its current too.',
      }),
    };
  },
  cures: (design): Edit[] => [...otherAhead(design), ...windingVolts(design, [-1, -2])],
};

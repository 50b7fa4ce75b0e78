import type { Edit } from '@/core/design/design';
import { hasDiodes } from '@/core/design/source';
import { DIODE_MAX_C, diodeOf } from '@/core/parts/diode';
import { formatQuantity } from '@/core/quantity/format';
import { diodeHeat } from '@/core/study/warmth';
import { otherDiodes, rectifierSinks } from '../cures';
import { absurdHeat, heatWords } from '../heat-words';
import { LASTING, type Rule } from '../rule';
import { computed, simulated, typical } from '@/core/picture/working';

/** Direct current above which a bridge goes on a heatsink or the chassis, A: what builders say, beside the computed junction. */
const FREE_AIR_A = 3;

export const rectifierHeat: Rule = {
  title: 'Rectifier heat',
  station: 'rectifier',
  scope: 'supply',
  occasion: LASTING,
  decides: ['rectifier', 'sink'],
  followsSink: true,
  early: 3,
  find({ study: { design }, at }) {
    if (!hasDiodes(design)) return null;
    const diode = diodeOf(design.rectifier);
    const found = diodeHeat(design, at);
    const valve = diode.technology === 'valve';
    const limit = DIODE_MAX_C[diode.technology];
    return {
      value: found.junctionC,
      limit,
      relation: 'at most',
      wanted: 20,
      tell: () => {
        const watts = at.watts.rectifier;
        const amps = at.rails.reduce((sum, p) => sum + p.rail.loadMeanA, 0);
        return {
          figure: {
            id: 'rectifier-heat',
            label: valve ? 'Glass of the rectifier' : 'Hottest junction of the rectifier',
            unit: '°C',
            origin: 'formula',
            ...absurdHeat(found.junctionC),
            expression: `${found.from.label} + ${found.chain.map((c) => `watts of ${c.of} × ${c.label}`).join(' + ')}`,
            inputs: [
              computed(found.from.label, found.from.tempC, '°C'),
              ...found.chain.flatMap((c) => [
                simulated(`watts of ${c.of}`, c.watts, 'W'),
                typical(c.label, c.kPerW, 'K/W'),
              ]),
              ...(valve ? [typical('of that, its heater', diode.heater.ratedV * diode.heater.currentA, 'W')] : []),
              simulated('direct current through it', amps, 'A'),
            ],
            source: 'Steady heat flow; diode loss is the mean of v·i. Thermal resistances typical of the housing.',
            assumes: [
              `In ${found.where === 'free air' ? 'free air, without a sink' : `contact with ${found.where}`}.`,
              valve
                ? 'Two anodes and their heater burn in one bulb.'
                : `What builders say: above about ${FREE_AIR_A} A a bridge goes on a heatsink or the chassis.`,
            ],
          },
          title: valve ? 'Rectifier glass' : 'Rectifier junction',
          limitSource: valve
            ? `Hottest glass of a bulb, ${limit} °C; 20 K kept in hand.`
            : `Highest junction temperature of a ${diode.technology} rectifier, ${limit} °C; 20 K kept in hand.`,
          sentence: `${heatWords(found.junctionC)} with ${formatQuantity(watts, 'W')} at ${formatQuantity(amps, 'A')}, ${found.where === 'free air' ? 'in free air' : `on ${found.where}`}.`,
          reason: valve
            ? 'Glass that is too hot gives off gas, and gas carries current backwards.'
            : 'Two drops of a volt at several amperes are a small soldering iron.',
        };
      },
    };
  },
  cures: (design): Edit[] => [
    ...(diodeOf(design.rectifier).technology === 'valve' ? [] : rectifierSinks(design)),
    ...otherDiodes(design),
  ],
};

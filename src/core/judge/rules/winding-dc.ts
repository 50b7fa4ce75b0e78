import { arrangementKind } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import { modelOf } from '@/core/circuit/feed';
import type { Edit } from '@/core/design/design';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { fullWave, transformerSize } from '../cures';
import type { Rule } from '../verdict';

/** Share of the rated RMS current that may flow as direct current before a core is biased noticeably. */
const ALLOWED = 0.05;

/** One-diode arrangements can leave direct current in the winding, which biases the core. */
export const windingDc: Rule = {
  id: 'winding-dc',
  title: 'Direct current in the winding',
  station: 'winding',
  find({ design, nominal }) {
    const kind = arrangementKind(design);
    if (kind !== 'half-wave' && kind !== 'split-half-wave') return null;
    const value = Math.abs(nominal.solution.windings[0]!.meanA);
    const { ratedA } = modelOf(design);
    const limit = ALLOWED * ratedA;
    const split = kind === 'split-half-wave';
    return {
      figure: {
        id: 'winding-dc',
        label: 'Mean current of the winding',
        value,
        unit: 'A',
        origin: 'simulated',
        condition: wordsOf(design, 'nominal'),
        expression: 'mean of the winding current over the cycle',
        inputs: [
          { label: 'positive rail', value: nominal.rails[0]!.rail.loadMeanA, unit: 'A', origin: 'simulated' },
          ...(split
            ? [
                {
                  label: 'negative rail',
                  value: nominal.rails[1]!.rail.loadMeanA,
                  unit: 'A' as const,
                  origin: 'simulated' as const,
                },
              ]
            : []),
          { label: 'rated current', value: ratedA, unit: 'A', origin: 'formula' },
        ],
        source: 'Periodic steady state.',
        assumes: ['No gap in the core; a toroid is upset by far less.'],
        estimate: {
          label: split ? 'difference of the two loads' : 'the load current',
          value: split
            ? Math.abs(nominal.rails[0]!.rail.loadMeanA - nominal.rails[1]!.rail.loadMeanA)
            : nominal.rails[0]!.rail.loadMeanA,
          expression: split ? 'I(+) − I(−)' : 'I',
        },
      },
      limit,
      limitSource: `A few per cent of the rated RMS current; ${formatNominal(100 * ALLOWED, '%')} of ${formatNominal(Number(ratedA.toPrecision(3)), 'A')} taken.`,
      relation: 'at most',
      wantedMargin: 0.3 * limit,
      sentence: `${formatQuantity(value, 'A')} direct current through the winding, ${formatQuantity(limit, 'A')} put up with.`,
      reason: 'It pushes the core towards saturation on one side: more magnetising current, more hum, more heat.',
    };
  },
  cures: (design): Edit[] => [
    ...fullWave(design),
    ...(arrangementKind(design) === 'split-half-wave'
      ? [
          { label: 'Two bridges on two windings', patch: { rectifier: { kind: 'two-bridges' as const } } },
          { label: 'Split bridge on a centre tap', patch: { rectifier: { kind: 'split-bridge' as const } } },
        ]
      : []),
    ...transformerSize(design, [2, 4]),
  ],
};

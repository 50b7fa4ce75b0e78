import { wordsOf } from '@/core/circuit/condition';
import { termsOf } from '@/core/design/source';
import { feedingWindings } from '@/core/study/feeding';
import type { Figure, FigureInput } from '@/core/study/figure';
import { LASTING } from '@/core/study/occasion';
import { mainModel } from '@/core/design/outputs';
import { lifeFigure } from '@/core/study/life-figure';
import type { OperatingPoint } from '@/core/study/point';
import type { Study } from '@/core/study/study';
import { junctionWorking, metalWorking } from './heat-working';
import type { Picture } from './picture';

/** What ways of building one thing are compared by. */
export const COMPARED = [
  'output',
  'rail',
  'rises',
  'ripple',
  'output-ripple',
  'headroom',
  'winding',
  'pulse',
  'regulator',
  'diodes',
  'junction',
  'sink',
  'lasts',
  'cost',
  'fails',
] as const;

export type ComparedId = (typeof COMPARED)[number];

/** The figures of one way; what it does not have is left out. */
export type Compared = Partial<Record<ComparedId, Figure>>;

const SIMULATED = 'The same solver and the same operating points as the design’s own verdicts.';

/** Compares by the figures of a solved and judged design, each with its working. */
export function comparedFigures(picture: Picture, study: Study): Compared {
  const { low, nominal, high, idle } = picture.points;
  const say = termsOf(picture.design);
  const windings = feedingWindings(picture.design, nominal.solution);
  const hottest = study.conditions
    .filter(LASTING)
    .map((c) => study.at(c))
    .reduce((a, b) => ((b.heat?.junctionC ?? 0) > (a.heat?.junctionC ?? 0) ? b : a), high);
  const simulated = (
    id: ComparedId,
    label: string,
    value: number,
    unit: Figure['unit'],
    expression: string,
    at: OperatingPoint,
    inputs: FigureInput[] = [],
  ): Figure => ({
    id,
    label,
    value,
    unit,
    origin: 'simulated',
    condition: wordsOf(picture.design, at.at),
    expression,
    inputs,
    source: SIMULATED,
    assumes: [],
  });
  // The least of all outputs decides, and is the one whose working is shown.
  const main = picture.neededV === null ? null : low.rail.minV - picture.neededV;
  const further = picture.neededV === null ? [] : low.outputs.flatMap((o) => (o.headroomV === null ? [] : [o]));
  const least = further.reduce<(typeof further)[number] | null>(
    (a, o) => (o.headroomV! < (a?.headroomV ?? main!) ? o : a),
    null,
  );
  const pass = mainModel(picture.design)?.pass;
  const jcKPerW = pass ? pass.jcKPerW / pass.count : 0;
  const worst = windings.reduce((a, b) => (b.rmsA > a.rmsA ? b : a));
  const highest = windings.reduce((a, b) => (b.peakA > a.peakA ? b : a));
  return {
    output: simulated('output', 'Output', nominal.outputMeanV, 'V', 'mean of the output over one cycle', nominal),
    rail: simulated(
      'rail',
      'Rail, nominal, full load',
      nominal.rail.meanV,
      'V',
      'mean at the reservoir over one cycle',
      nominal,
      [
        { label: 'lowest', value: nominal.rail.minV, unit: 'V' },
        { label: 'highest', value: nominal.rail.maxV, unit: 'V' },
      ],
    ),
    rises: {
      ...simulated(
        'rises',
        `Rises, ${say.low} loaded to ${say.high} idle`,
        100 * (idle.rail.meanV / low.rail.meanV - 1),
        '%',
        'mean idle / mean loaded − 1',
        idle,
        [
          { label: `${say.high}, idle`, value: idle.rail.meanV, unit: 'V', origin: 'simulated' },
          { label: `${say.low}, loaded`, value: low.rail.meanV, unit: 'V', origin: 'simulated' },
        ],
      ),
      condition: `${wordsOf(picture.design, low.at)} against ${wordsOf(picture.design, idle.at)}`,
    },
    ripple: simulated(
      'ripple',
      'Ripple, p-p',
      nominal.rail.ripplePeakToPeakV,
      'V',
      'highest − lowest at the reservoir',
      nominal,
      [
        { label: 'highest', value: nominal.rail.maxV, unit: 'V' },
        { label: 'lowest', value: nominal.rail.minV, unit: 'V' },
      ],
    ),
    'output-ripple': simulated(
      'output-ripple',
      `Ripple on it, ${say.low}`,
      low.outputRippleVpp,
      'V',
      'what the regulator lets through, peak to peak',
      low,
      [{ label: 'ripple ahead of it', value: low.rail.ripplePeakToPeakV, unit: 'V' }],
    ),
    ...(main === null
      ? {}
      : {
          headroom: simulated(
            'headroom',
            `Headroom, ${say.low}`,
            least?.headroomV ?? main,
            'V',
            'valley − what the regulator needs, the least of all outputs',
            low,
            [
              { label: 'valley', value: low.rail.minV, unit: 'V' },
              {
                label: least ? 'the further output needs' : 'needs',
                value: low.rail.minV - (least?.headroomV ?? main),
                unit: 'V',
              },
            ],
          ),
        }),
    winding: simulated(
      'winding',
      'Winding, RMS',
      worst.rmsA,
      'A',
      '√(mean of the current squared over one cycle)',
      nominal,
      [{ label: 'peak', value: worst.peakA, unit: 'A' }],
    ),
    pulse: simulated('pulse', 'Charging pulse', highest.peakA, 'A', 'highest current in the winding', nominal),
    regulator: simulated(
      'regulator',
      'Burns at its worst',
      hottest.watts.regulator,
      'W',
      'mean of volts across it × current through it',
      hottest,
    ),
    diodes: simulated(
      'diodes',
      'Burns in the diodes',
      nominal.watts.rectifier,
      'W',
      'mean of forward volts × current, all diodes',
      nominal,
    ),
    ...(hottest.heat
      ? {
          junction: {
            ...simulated('junction', 'Junction at its worst', hottest.heat.junctionC, '°C', '', hottest),
            ...junctionWorking(hottest.heat, hottest.regulatorW),
            origin: 'formula' as const,
          },
          sink: {
            ...simulated('sink', 'Metal', hottest.heat.sinkC, '°C', '', hottest),
            ...metalWorking(hottest.heat, hottest.regulatorW, jcKPerW),
            origin: 'formula' as const,
          },
        }
      : {}),
    ...(picture.life ? { lasts: lifeFigure(picture.design, picture.life) } : {}),
    cost: {
      id: 'cost',
      label: 'Parts',
      value: picture.costEur,
      unit: 'EUR',
      origin: 'typical',
      expression: 'the sum of the bill',
      inputs: [],
      source: 'Typical prices of part classes; the Bill has every line.',
      assumes: [],
    },
    fails: {
      id: 'fails',
      label: 'Verdicts that fail',
      value: picture.fails,
      unit: '',
      origin: 'simulated',
      expression:
        picture.fails === 0
          ? 'none of the verdicts fails'
          : picture.verdicts
              .filter((v) => v.state === 'fails')
              .map((v) => v.title)
              .join(', '),
      inputs: [
        { label: 'verdicts', value: picture.verdicts.length, unit: '' },
        { label: 'tight', value: picture.tight, unit: '' },
      ],
      source: SIMULATED,
      assumes: [],
    },
  };
}

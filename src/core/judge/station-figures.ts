import { inductanceAt } from '@/core/circuit/assemble';
import { ARRANGEMENTS } from '@/core/parts/arrangements';
import { CONDITIONS, capacitanceAt, esrOf, mainsVolts, modelOf, reservoirPlace } from '@/core/circuit/condition';
import { REGULATOR_JUNCTION_MAX_C, regulatorSize, rippleRejectionDb } from '@/core/parts/regulator';
import { typicalLeakage } from '@/core/parts/capacitor';
import { copperRatio } from '@/core/parts/transformer';
import { hasChokeInput } from '@/core/design/filters';
import { windingCount } from '@/core/design/words';
import type { Figure, FigureInput } from '@/core/study/figure';
import type { Unit } from '@/core/quantity/parse';
import { levelsOf, type Band, type Picture } from './picture';
import type { StationId } from './verdict';

const STEADY = 'Periodic steady state of transformer, diodes, reservoir and load, solved directly.';

const of = (label: string, value: number, unit: Unit, origin?: FigureInput['origin']): FigureInput => ({
  label,
  value,
  unit,
  ...(origin ? { origin } : {}),
});

/** The figures of one station in one mains band, each with its working. First the one builders ask for first. */
export function stationFigures(picture: Picture, station: StationId, band: Band): Figure[] {
  const { design } = picture;
  const point = picture.points[band];
  const { solution, winding } = point;
  const { facts } = ARRANGEMENTS[design.rectifier.kind];
  const condition = CONDITIONS[band].words;
  const levels = levelsOf(point);
  const loadA = point.rail.loadMeanA;
  const { fullWave } = facts;
  const simulated = (
    id: string,
    label: string,
    value: number,
    unit: Unit,
    expression: string,
    inputs: FigureInput[] = [],
    extra: Partial<Figure> = {},
  ): Figure => ({
    id,
    label,
    value,
    unit,
    origin: 'simulated',
    condition,
    expression,
    inputs,
    source: STEADY,
    assumes: [],
    ...extra,
  });
  const formula = (
    id: string,
    label: string,
    value: number,
    unit: Unit,
    expression: string,
    inputs: FigureInput[],
    source: string,
    assumes: string[] = [],
  ): Figure => ({ id, label, value, unit, origin: 'formula', condition, expression, inputs, source, assumes });

  switch (station) {
    case 'mains':
      return (['low', 'nominal', 'high'] as const).map((level) => ({
        ...formula(
          `mains-${level}`,
          `${level[0]!.toUpperCase()}${level.slice(1)} line`,
          mainsVolts(design, level),
          'V',
          level === 'nominal' ? 'as chosen' : `nominal × (1 ${level === 'low' ? '−' : '+'} tolerance)`,
          [
            of('nominal', design.mains.voltageRms, 'V', 'chosen'),
            ...(level === 'nominal'
              ? []
              : [of('tolerance', level === 'low' ? design.mains.lowPct : design.mains.highPct, '%', 'chosen')]),
          ],
          'Usual limits of public nets (EN 50160: ±10 % at 230 V).',
          ['A clean sine; real mains is 0 to 5 % flat at its peak.'],
        ),
        condition: undefined,
      })) as Figure[];
    case 'winding': {
      const model = modelOf(design);
      const feeding = solution.windings.slice(0, windingCount(design));
      const rmsA = Math.max(...feeding.map((w) => w.rmsA));
      const halves = windingCount(design);
      const ohm = model.ownHotOhm + model.sharedHotOhm;
      return [
        simulated(
          'winding-rms',
          'RMS current',
          rmsA,
          'A',
          'root of the mean square of the winding current',
          [of('load current', loadA, 'A', 'simulated')],
          {
            estimate: {
              label: 'rule of thumb',
              value: facts.rmsFactor * loadA,
              expression: `${facts.name}, capacitor input: about ${facts.rmsFactor} × load current`,
            },
          },
        ),
        simulated(
          'winding-peak',
          'Charging pulse',
          Math.max(...feeding.map((w) => w.peakA)),
          'A',
          'highest winding current of the cycle',
        ),
        simulated(
          'winding-va',
          'Apparent power',
          solution.windings.reduce((s, w) => s + w.voltAmpere, 0),
          'VA',
          'open-circuit RMS volts × RMS current, all windings',
          [of('rated', design.transformer.ratedVA, 'VA', 'chosen')],
        ),
        formula(
          'winding-open',
          'Open-circuit volts',
          winding.voltageRms,
          'V',
          'rated volts × (1 + regulation) × mains / nominal mains',
          [
            of('rated volts', design.transformer.ratedV, 'V', 'chosen'),
            of('regulation', 100 * model.regulation, '%', model.regulationKnown ? 'data sheet' : 'typical'),
            of('mains', mainsVolts(design, band), 'V'),
          ],
          model.regulationKnown
            ? 'Nameplate.'
            : 'Nameplate, with the regulation typical of a laminated transformer of this size.',
        ),
        formula(
          'winding-ohm',
          'Winding resistance, warm',
          ohm,
          'ohm',
          '(open-circuit − rated volts) / rated current; half of it is the primary’s',
          [
            of('rated current', model.ratedA, 'A', 'formula'),
            of('cold, 20 °C', ohm / copperRatio(design.transformer.hotC), 'ohm', 'formula'),
            of('copper', design.transformer.hotC, '°C', 'chosen'),
          ],
          'R(T) = R20·(234.5 + T)/254.5 for copper.',
          [
            'The plate’s regulation holds for warm copper.',
            ...(halves === 2 ? ['Only one half carries current at a time; both share the primary.'] : []),
          ],
        ),
        simulated(
          'winding-loss',
          'Copper loss',
          point.watts.winding,
          'W',
          'resistance × mean square current, primary and secondary',
        ),
      ];
    }
    case 'rectifier': {
      const diode = solution.diodes.reduce((a, b) => (b.meanA > a.meanA ? b : a));
      return [
        simulated('diode-mean', 'Mean, each diode', diode.meanA, 'A', 'mean of the diode current', [
          of('load current', loadA, 'A', 'simulated'),
        ]),
        simulated(
          'diode-drop',
          'Taken at the crest',
          levels.terminalPeakV - levels.reservoirMaxV,
          'V',
          'highest winding voltage while conducting − highest reservoir voltage',
          [],
          {
            estimate: {
              label: '0.9 V a diode in the path',
              value: 0.9 * facts.diodesInPath,
              expression: 'diodes in path × 0.9 V',
            },
          },
        ),
        simulated('diode-loss', 'Loss, all diodes', point.watts.rectifier, 'W', 'mean of diode voltage × current', [], {
          estimate: {
            label: '0.9 V a diode in the path',
            value: 0.9 * loadA * facts.diodesInPath,
            expression: 'diodes in path × 0.9 V × load current',
          },
        }),
        simulated('diode-angle', 'Conducts', diode.conductionDeg, '°', '360° × time above 1 % of the peak / period'),
        simulated(
          'diode-surge',
          'First surge',
          picture.surge.peakA,
          'A',
          'highest current of a start at the voltage peak',
          [of('I²t of the first cycle', picture.surge.i2t, 'A²s', 'simulated')],
          { condition: CONDITIONS.surge.words },
        ),
      ];
    }
    case 'reservoir': {
      const c = capacitanceAt(design, CONDITIONS[band].capacitor);
      const idleV = picture.points.idle.reservoir.maxV;
      const can = point.network.sections[0]!.rails[0]!.filter[reservoirPlace(design)];
      const choke = hasChokeInput(design) ? design.filter.before.find((s) => s.kind === 'choke') : undefined;
      const estimate =
        choke?.kind === 'choke' && c > 0
          ? {
              estimate: {
                label: 'second harmonic through L and C',
                value:
                  ((4 / 3) * point.rail.meanV) /
                  Math.max(4 * (2 * Math.PI * design.mains.frequencyHz) ** 2 * choke.inductanceH * c - 1, 1e-9),
                expression: '2·(2/3)·V/(4·ω²·L·C − 1)',
              },
            }
          : c > 0
            ? {
                estimate: {
                  label: 'I·t/C',
                  value: loadA / (design.mains.frequencyHz * (fullWave ? 2 : 1) * c),
                  expression: fullWave ? 'I/(2·f·C)' : 'I/(f·C)',
                },
              }
            : {};
      return [
        simulated(
          'reservoir-ripple',
          'Ripple, p-p',
          point.reservoir.maxV - point.reservoir.minV,
          'V',
          'highest − lowest reservoir voltage',
          [
            of('load current', loadA, 'A', 'simulated'),
            of('capacitance', c, 'F'),
            of('ESR', can?.kind === 'capacitor' ? can.esrOhm : 0, 'ohm'),
          ],
          estimate,
        ),
        simulated('reservoir-mean', 'Mean', point.reservoir.meanV, 'V', 'mean reservoir voltage'),
        simulated('reservoir-valley', 'Valley', levels.reservoirMinV, 'V', 'lowest reservoir voltage of the cycle', [
          of('capacitance', c, 'F'),
        ]),
        simulated(
          'reservoir-current',
          'Ripple current',
          point.can?.rmsA ?? 0,
          'A',
          'RMS of (rectifier − load current)',
          [],
          { estimate: { label: '1.4 × load', value: 1.4 * loadA, expression: '1.2 to 1.6 × load current' } },
        ),
        simulated(
          'reservoir-idle',
          'Idle, high line',
          idleV,
          'V',
          'highest reservoir voltage without load',
          [of('leakage', typicalLeakage(design.reservoir.capacitanceF, design.reservoir.ratedV), 'A', 'typical')],
          { condition: CONDITIONS.idle.words },
        ),
        formula(
          'reservoir-energy',
          'Stored, idle',
          0.5 * design.reservoir.capacitanceF * idleV ** 2,
          'J',
          '½·C·V²',
          [of('capacitance', design.reservoir.capacitanceF, 'F', 'chosen'), of('voltage', idleV, 'V', 'simulated')],
          'Energy of a capacitor.',
        ),
        simulated(
          'reservoir-ground',
          'Pulse in the ground wire',
          Math.max(...point.wave.rectifierA),
          'A',
          'highest current out of the rectifier; it returns to the winding through the ground wire',
          [],
          {
            assumes: [
              'Star point at the reservoir: what shares this wire with the pulse hears it as hum no regulator removes.',
            ],
          },
        ),
        {
          ...formula(
            'reservoir-esr',
            'ESR, new',
            esrOf(design),
            'ohm',
            design.reservoir.esrOhm === null ? 'loss tangent / (2π·120 Hz·C)' : 'as entered',
            [of('capacitance', design.reservoir.capacitanceF, 'F', 'chosen')],
            'Loss tangent typical of the voltage class.',
          ),
          origin: design.reservoir.esrOhm === null ? 'typical' : 'chosen',
          condition: undefined,
        } as Figure,
      ];
    }
    case 'before': {
      const at = design.filter.before.findIndex((s) => s.kind === 'choke');
      const choke = solution.elements[0]?.[at];
      const part = design.filter.before[at];
      const list: Figure[] = [
        simulated('input-mean', 'Rectifier output', point.rail.inputMeanV, 'V', 'mean voltage ahead of the filter'),
        simulated(
          'input-low',
          'Lowest there',
          point.rail.inputMinV,
          'V',
          'lowest voltage ahead of the filter in the cycle',
          [],
          {
            assumes: [
              'Where a choke’s current ceases the voltage jumps in no time; stray capacitance and the diode’s recovery decide the real spike.',
            ],
          },
        ),
      ];
      if (!choke || part?.kind !== 'choke') return list;
      const henry = part.swinging ? inductanceAt(part.inductanceH, part.ratedA / 2, loadA) : part.inductanceH;
      return [
        simulated('choke-least', 'Choke current, least', choke.minA, 'A', 'lowest choke current of the cycle', [
          of('mean', choke.meanA, 'A', 'simulated'),
        ]),
        formula(
          'choke-critical',
          'Ceases below',
          point.rail.meanV / (3 * 2 * Math.PI * design.mains.frequencyHz * henry),
          'A',
          'V/(3·ω·L)',
          [of('output', point.rail.meanV, 'V', 'simulated'), of('inductance', henry, 'H', 'chosen')],
          'First harmonic of the rectified sine against the direct current, full-wave.',
          ['A rule of thumb; the lowest current beside it is simulated.'],
        ),
        simulated('choke-rms', 'Choke current, RMS', choke.rmsA, 'A', 'root of the mean square', [
          of('rated', part.ratedA, 'A', 'chosen'),
        ]),
        simulated('choke-volts', 'Across the choke, p-p', choke.peakToPeakV, 'V', 'highest − lowest voltage across it'),
        ...list,
      ];
    }
    case 'after': {
      const mean = point.rail.meanV;
      return [
        simulated('filter-ripple', 'Ripple behind it, p-p', point.rail.ripplePeakToPeakV, 'V', 'highest − lowest', [
          of('ahead of it', point.reservoir.maxV - point.reservoir.minV, 'V', 'simulated'),
        ]),
        simulated('filter-drop', 'Takes', point.reservoir.meanV - mean, 'V', 'mean at the reservoir − mean behind it', [
          of('load current', loadA, 'A', 'simulated'),
        ]),
        simulated('filter-mean', 'Mean behind it', mean, 'V', 'mean over the cycle'),
        simulated(
          'filter-loss',
          'Loss, all filter parts',
          point.watts.reservoir,
          'W',
          'ESR, choke copper, resistors and bleeder × mean square current',
        ),
      ];
    }
    case 'regulator': {
      if (design.regulator.kind === 'none' || !point.heat || picture.neededV === null) return [];
      const size = regulatorSize(design.regulator.size);
      return [
        simulated(
          'regulator-headroom',
          'Headroom',
          levels.reservoirMinV - picture.neededV,
          'V',
          'lowest reservoir voltage − (output + dropout)',
          [of('valley', levels.reservoirMinV, 'V', 'simulated'), of('needed', picture.neededV, 'V', 'formula')],
        ),
        simulated(
          'regulator-watts',
          'Burns',
          point.watts.regulator,
          'W',
          'mean of input power − output power',
          [
            of('mean input', point.rail.meanV, 'V', 'simulated'),
            of('output', point.outputMeanV, 'V', 'simulated'),
            of('quiescent', size.quiescentA, 'A', 'typical'),
          ],
          {
            estimate: {
              label: 'mean drop × load',
              value: (point.rail.meanV - point.outputMeanV) * point.outputMeanA,
              expression: '(mean input − output) × load current',
            },
          },
        ),
        formula(
          'regulator-junction',
          'Junction',
          point.heat.junctionC,
          '°C',
          `air + watts × (${point.heat.chain.map((x) => x.label).join(' + ')})`,
          [
            of('air', design.heat.ambientC, '°C', 'chosen'),
            of('watts', point.watts.regulator, 'W', 'simulated'),
            ...point.heat.chain.map((x) => of(x.label, x.kPerW, 'K/W', 'typical')),
            of('limit', REGULATOR_JUNCTION_MAX_C, '°C', 'data sheet'),
          ],
          'Chain of thermal resistances, steady.',
        ),
        formula(
          'regulator-sink',
          'Sink metal',
          point.heat.sinkC,
          '°C',
          'air + watts × sink to air',
          [of('air', design.heat.ambientC, '°C', 'chosen'), of('watts', point.watts.regulator, 'W', 'simulated')],
          'Chain of thermal resistances, steady.',
        ),
        {
          ...formula(
            'regulator-rejection',
            'Rejection',
            rippleRejectionDb(design.regulator.outputV),
            'dB',
            '78 dB at 5 V falling to 56 dB at 24 V with the logarithm of the output',
            [of('output', design.regulator.outputV, 'V', 'chosen')],
            'Typical of the 78 family at 100/120 Hz.',
          ),
          origin: 'typical',
          condition: undefined,
        } as Figure,
      ];
    }
    case 'load': {
      const source = solution.energyBalance.sourceW;
      return [
        simulated(
          'output-mean',
          'Output',
          point.outputMeanV,
          'V',
          design.regulator.kind === 'none' ? 'mean reservoir voltage' : 'the regulator’s output, mean over the cycle',
        ),
        simulated(
          'output-ripple',
          'Output ripple, p-p',
          point.outputRippleVpp,
          'V',
          design.regulator.kind === 'none'
            ? 'highest − lowest'
            : 'reservoir ripple × rejection + what dropout lets through',
          [of('reservoir ripple', point.rail.ripplePeakToPeakV, 'V', 'simulated')],
        ),
        simulated('output-current', 'Current', point.outputMeanA, 'A', 'mean load current', [
          of('asked', design.demand.outputA, 'A', 'chosen'),
        ]),
        simulated('output-watts', 'Load', point.watts.load, 'W', 'mean of output volts × load current'),
        formula(
          'efficiency',
          'Reaches the load',
          source > 0 ? (100 * point.watts.load) / source : 0,
          '%',
          'load power / power from the winding’s EMF',
          [of('load', point.watts.load, 'W', 'simulated'), of('from the EMF', source, 'W', 'simulated')],
          STEADY,
          ['Core loss is not in it.'],
        ),
      ];
    }
  }
}

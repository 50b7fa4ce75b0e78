import { mainModel, outputModel, outputsOf, type Output } from '@/core/design/outputs';
import { arrangementOf, dcSourceOf, hasDiodes, termsOf } from '@/core/design/source';
import { sourceOhm } from '@/core/parts/dc-source';
import { judgeReading, latestReadings } from '@/core/bench/readings';
import { stagesOf } from '@/core/bench/stages';
import type { TestPoint } from '@/core/bench/test-point';
import { capacitanceAt, esrOf } from '@/core/circuit/filter-of';
import { mainsVolts, modelOf } from '@/core/circuit/feed';
import type { Picture } from '@/core/picture/picture';
import type { State } from '@/core/judge/verdict';
import { diodeOf } from '@/core/parts/diode';
import { thermalInterface } from '@/core/parts/heatsink';
import { tabWords } from '@/core/parts/regulators/model';
import { capitalised, formatNominal as n, formatQuantity as q } from '@/core/quantity/format';
import { heatersOf } from '@/core/design/heaters';
import { balanceOhmOf } from '@/core/design/bank';
import type { Design } from '@/core/design/design';
import { insulators } from '@/core/study/cost';
import { bankWords, sourceWords, windingWords } from '@/core/design/words';
import type { Figure } from '@/core/study/figure';
import { feedingRmsA } from '@/core/study/feeding';
import { mostWords } from '@/core/study/most-words';
import type { Most } from '@/core/study/most';
import { logDays } from './log';
import { tryFirst, type Try } from './try-first';
import { cautions } from './cautions';

/** So many of the log's entries stand on the sheet; the rest in the log. */
const LAST_CHANGES = 4;

/** What is printed and stays with the box. */
export interface Report {
  plate: [string, string][];
  parts: { station: string; what: string; detail: string }[];
  margins: { state: State; title: string; figure: Figure; limit: string; condition: string }[];
  readings: { stage: string; label: string; expected: string; read: string; judged: string }[];
  /** What was last done to it, and why, the newest first. */
  changed: { day: string; what: string; why: string }[];
  tryFirst: Try[];
  cautions: string[];
}

/** Gathers a sheet from a solved design and its bench windows. */
export function report(picture: Picture, points: TestPoint[], most: readonly Most[] = []): Report {
  const { design } = picture;
  const { mains, transformer, rectifier, reservoir, heat } = design;
  const model = modelOf(design);
  const dc = dcSourceOf(design);
  const made = mainModel(design);
  const outputs = outputsOf(design);
  const nominal = picture.points.nominal;
  const diode = diodeOf(rectifier);
  const latest = latestReadings(design.bench.readings);
  const further = new Set(stagesOf(design).flatMap((s) => s.more));
  const primaryVA = nominal.solution.energyBalance.sourceW;
  return {
    plate: [
      [
        'Input',
        `${dc ? sourceWords(design) : `${n(mains.voltageRms, 'V')} ${n(mains.frequencyHz, 'Hz')}`}, ${q(mainsVolts(design, 'low'), 'V')} to ${q(mainsVolts(design, 'high'), 'V')}${dc ? ' open' : ''}`,
      ],
      ...outputs.map((o): [string, string] => [
        o.id === 'main' ? 'Output' : capitalised(o.name),
        `${setWords(o)} DC, ${n(o.demand.outputA, 'A')}`,
      ]),
      ['Stays within', `${q(picture.output.minV, 'V')} to ${q(picture.output.maxV, 'V')}`],
      ['Ripple', `${q(picture.points.low.outputRippleVpp, 'V')} p-p at worst`],
      ...most.map((m): [string, string] => [
        most.length > 1 ? `Most, ${m.name}` : 'Most it gives',
        mostWords(m, termsOf(design).low, (a) => q(a, 'A')),
      ]),
      ...(picture.life
        ? ([
            [
              'Lasts',
              `${q(picture.life.hours, 'h')} at its lasting load, ${q(100 * picture.life.used, '%', 2)} of the charge`,
            ],
          ] as [string, string][])
        : []),
      [`Takes from the ${termsOf(design).winding}`, `${q(primaryVA, 'W')}, gives ${q(nominal.watts.load, 'W')}`],
    ],
    parts: [
      dc
        ? {
            station: dc.kind === 'battery' ? 'Battery' : 'Adapter',
            what: sourceWords(design),
            detail: `resistance ${q(sourceOhm(dc), 'ohm')}, carries ${q(picture.points.low.solution.windings[0]!.rmsA, 'A')}${dc.kind === 'battery' ? `, holds ${n(dc.capacityAh, 'Ah')}, given up at ${n(dc.emptyV, 'V')}` : ''}`,
          }
        : {
            station: 'Transformer',
            what: `${windingWords(design)}, ${n(transformer.ratedVA, 'VA')}`,
            detail: `regulation ${q(100 * model.regulation, '%')}${model.regulationKnown ? '' : ' (typical)'}, open ${q(model.openCircuitV, 'V')}, rated ${q(model.ratedA, 'A')}, carries ${q(feedingRmsA(design, picture.points.high.solution), 'A')} RMS${heaterWords(design)}`,
          },
      {
        station: dc ? 'Reverse diode' : 'Rectifier',
        what: dc ? (hasDiodes(design) ? diode.technology : 'none') : arrangementOf(design).words.name,
        detail: hasDiodes(design) ? diode.name : 'swapped leads reach everything',
      },
      {
        station: 'Reservoir',
        what: reservoir.capacitanceF > 0 ? `${bankWords(reservoir)}, ${n(reservoir.ratedV, 'V')}` : 'none',
        detail:
          reservoir.capacitanceF > 0
            ? `ESR ${q(esrOf(design), 'ohm')}${reservoir.esrOhm === null ? ' (typical)' : ''}; judged at ${n(Number(capacitanceAt(design, 'aged').toPrecision(3)), 'F')} aged`
            : '',
      },
      made
        ? {
            station: 'Regulator',
            what: made.name,
            detail: `${made.pass.package}, ${tabWords(made.pass)}${made.pass.takesSink ? `; ${heat.sinkKPerW === null ? 'no sink' : `sink ${n(heat.sinkKPerW, 'K/W')}, ${thermalInterface(heat.interface).name.toLowerCase()}`}` : ''}`,
          }
        : { station: 'Regulator', what: 'none', detail: 'the reservoir feeds the load' },
      ...outputs
        .filter((o) => o.place >= 0)
        .map((o) => {
          const model = outputModel(o);
          const low = picture.points.low.outputs[o.place]!;
          const high = picture.points.high.outputs[o.place]!;
          const on = heat.oneSink
            ? 'on the main sink'
            : o.sinkKPerW === null
              ? 'no sink'
              : `sink ${n(o.sinkKPerW, 'K/W')}`;
          return {
            station: o.name,
            what: `${model?.name ?? 'the rail itself'}, ${n(o.demand.outputA, 'A')}`,
            detail:
              model && low.headroomV !== null
                ? `headroom ${q(low.headroomV, 'V', 2)}, ${q(high.regulatorW, 'W')}, junction ${q(high.heat?.junctionC ?? heat.ambientC, '°C')}${model.pass.takesSink ? `; ${on}` : ''}`
                : `${q(low.outputMinV, 'V')} at its lowest`,
          };
        }),
      { station: 'Small parts', ...smallParts(design) },
    ],
    margins: picture.verdicts.map((v) => ({
      state: v.state,
      title: v.title,
      figure: v.figure,
      limit: `${v.relation} ${n(Number(v.limit.toPrecision(3)), v.figure.unit)}`,
      condition: v.figure.condition ?? '',
    })),
    // Points no stage waits for stand there once they were read.
    readings: points
      .filter((p) => latest.has(p.id) || !further.has(p.id))
      .map((p) => {
        const reading = latest.get(p.id);
        const judged = reading ? judgeReading(p, reading.value) : null;
        return {
          stage: p.stage,
          label: p.label,
          expected: `${q(p.low, p.unit)} to ${q(p.high, p.unit)}`,
          read: reading
            ? `${q(reading.value, p.unit, 4)}${p.id === 'mains' ? '' : ` at ${q(reading.mainsV, 'V')}`}`
            : '',
          judged: judged ? judged.state : '',
        };
      }),
    changed: logDays(design)
      .flatMap(({ day, entries }) => [...entries].reverse().map(({ entry: { what, why } }) => ({ day, what, why })))
      .slice(0, LAST_CHANGES),
    tryFirst: tryFirst(points),
    cautions: cautions(design, picture.hazard, picture.points.high.heat?.sinkC ?? null),
  };
}

/** The windings that feed heaters, with what each gives. */
function heaterWords(design: Design): string {
  return heatersOf(design)
    .map((h) => `; heater winding ${n(h.ratedV, 'V')}, ${n(h.currentA, 'A')}`)
    .join('');
}

/** Volts an output is set to: one figure, or the range its knob goes over. */
function setWords(output: Output): string {
  const model = outputModel(output);
  return model && model.lowestV < model.outputV - 0.01
    ? `${q(model.lowestV, 'V')} to ${q(model.outputV, 'V')}`
    : n(output.demand.outputV, 'V');
}

/** What is easily forgotten: the small parts of each regulator, washers, the fan, balancing resistors, the lamp. */
function smallParts(design: Design): { what: string; detail: string } {
  const { heat, indicator, reservoir, filter } = design;
  const parts: string[] = [];
  for (const output of outputsOf(design)) {
    if (output.id === 'minus') continue;
    for (const { what, value, unit } of outputModel(output)?.small ?? [])
      parts.push(`${what}${value === null ? '' : `, ${n(Number(value.toPrecision(3)), unit)}`}`);
  }
  const washers = insulators(design);
  if (washers > 0) parts.push(`${washers} × ${thermalInterface(heat.interface).name.toLowerCase()} with bushes`);
  const balance = balanceOhmOf(reservoir);
  if (balance !== null) parts.push(`balancing resistors, ${n(balance, 'ohm')} across each can`);
  if (filter.bleederOhm !== null) parts.push(`bleeder, ${n(filter.bleederOhm, 'ohm')}`);
  if (indicator) parts.push(`lamp, ${n(indicator.currentA, 'A')} with its resistor, at the ${indicator.at}`);
  if (heat.fan !== 'none')
    parts.push(
      `fan${heat.fan === 'switched' ? ` from ${n(heat.fanOnC, '°C')} on` : ''}, ${heat.fanA === null ? 'fed from elsewhere' : `${n(heat.fanA, 'A')} from the rail`}`,
    );
  return { what: parts.length > 0 ? '' : 'none', detail: capitalised(parts.join('; ')) };
}

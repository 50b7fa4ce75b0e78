import { heatersOf, rectifierPieces, rectifierSink } from '@/core/design/heaters';
import { mainModel, outputModel, outputName, outputsOf } from '@/core/design/outputs';
import { arrangementFacts, arrangementOf, dcSourceOf, hasDiodes } from '@/core/design/source';
import { sinksOf, type Sink } from '@/core/design/sinks';
import { partsIn } from '@/core/drawer/fit';
import { balanceOhmOf, bankRatedV, canCount } from '@/core/design/bank';
import type { Design } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import { netlistOf } from '@/core/netlist/netlist-of';
import { referencesOf } from '@/core/netlist/references';
import { indicatorOhm } from '@/core/circuit/indicator';
import { placedParts } from '@/core/circuit/filter-of';
import { thermalInterface } from '@/core/parts/heatsink';
import type { ElementResult } from '@/core/solve/solution';
import { modelOf } from '@/core/circuit/feed';
import { feedingRmsA } from './feeding';
import type { OperatingPoint } from './point';
import { LASTING } from './occasion';
import { capitalised } from '@/core/quantity/format';
import { sourceWords, windingCount } from '@/core/design/words';
import { typicalCapacitorPrice, typicalRippleRating } from '@/core/parts/capacitor';
import { typicalSourcePrice } from '@/core/parts/dc-source';
import { diodeOf } from '@/core/parts/diode';
import { typicalSinkPrice } from '@/core/parts/heatsink';
import { aheadModel } from '@/core/parts/regulators/ahead';
import { typicalTransformerPrice } from '@/core/parts/transformer';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import {
  SMALL_EUR,
  insulators,
  mainSinks,
  pinParts,
  regulatorCost,
  typicalBoxPrice,
  secondaryFuses,
  typicalHeaterPrice,
  typicalStepPrice,
} from './cost';
import type { Study } from './study';
import type { BillLine } from './bill-sums';

/** Everything a design is built from, with the ratings its simulation asks for. */
export function billOf(study: Study): BillLine[] {
  const { design, idle, surge } = study;
  const { transformer, reservoir, heat, filter, mainsSide, indicator } = design;
  const worst = worstOf(study);
  const arrangement = arrangementOf(design);
  const picks = new Map(partsIn(design).map((p) => [p.role, p]));
  const lines: BillLine[] = [];
  const add = (
    role: PartRole | null,
    line: Omit<BillLine, 'role' | 'fromDrawer' | 'typicalPrice' | 'priceEachEur' | 'lossW'> & {
      priceEur: number;
      lossW?: number;
    },
  ) => {
    const pick = role ? picks.get(role) : undefined;
    const { priceEur, lossW = null, ...rest } = line;
    const drawerEach = pick && pick.priceEur !== null ? pick.priceEur / line.count : null;
    lines.push({
      ...rest,
      lossW,
      role,
      fromDrawer: pick?.name ?? null,
      priceEachEur: drawerEach ?? priceEur,
      typicalPrice: drawerEach === null,
    });
  };
  const netlist = netlistOf(design);
  const onLine = (line: string) => netlist.parts.filter((p) => p.line === line);
  const refs = (line: string) => referencesOf(onLine(line));
  const sinks = sinksOf(design);
  const sinkRefs = (of: Sink['of']) => referencesOf(sinks.filter((s) => s.of === of));
  const halves = windingCount(design);
  const dc = dcSourceOf(design);
  if (dc)
    add(null, {
      references: refs('source'),
      what: sourceWords(design),
      count: 1,
      needed: formatQuantity(
        worst((p) => p.solution.windings[0]!.rmsA),
        'A',
      ),
      had:
        dc.kind === 'battery'
          ? formatNominal(dc.capacityAh, 'Ah')
          : `${formatNominal(dc.ratedV, 'V')}, ${formatNominal(dc.ratedA, 'A')}`,
      priceEur: typicalSourcePrice(dc),
    });
  else
    add('transformer', {
      references: refs('transformer'),
      what: `Transformer, ${halves === 2 ? '2 × ' : ''}${formatNominal(transformer.ratedV, 'V')}`,
      count: 1,
      needed: `${formatQuantity(
        worst((p) => feedingRmsA(design, p.solution)),
        'A',
      )} RMS`,
      had: `${formatQuantity(modelOf(design).ratedA, 'A')}, ${formatNominal(transformer.ratedVA, 'VA')}`,
      priceEur: typicalTransformerPrice(transformer.ratedVA, halves),
    });
  const pieces = rectifierPieces(design);
  const diode = diodeOf(design.rectifier);
  // Four in one block are one part.
  const bought = diode.housing === 'block' && arrangementFacts(design).bridges > 0 ? pieces / 4 : pieces;
  // As the verdicts judge them: the mean that lasts, the reverse volts without load, twice over for what the mains bring.
  const meanA = worst((p) => Math.max(...p.solution.diodes.map((d) => d.meanA)));
  const reverse = idle.solution.diodes.reduce((a, d) => Math.max(a, d.peakReverseV), 0);
  if (hasDiodes(design))
    add('rectifier', {
      references: refs('rectifier'),
      what: diode.name,
      count: bought,
      needed: `${formatQuantity(meanA, 'A')}, ${formatQuantity(dc ? 2 * idle.rail.inputMaxV : 2 * reverse, 'V')}, ${formatQuantity(surge.peakA, 'A')} once`,
      had: `${formatNominal(diode.averageA, 'A')}, ${formatNominal(diode.reverseV, 'V')}, ${formatNominal(diode.surgeA, 'A')}`,
      priceEur: (diode.priceEur * pieces) / bought,
    });
  if (reservoir.capacitanceF > 0) {
    const count = canCount(reservoir) * arrangementFacts(design).cans;
    const rating = reservoir.rippleA ?? typicalRippleRating(reservoir.capacitanceF, reservoir.ratedV);
    add('reservoir', {
      references: refs('reservoir'),
      what: `Electrolytic ${formatNominal(reservoir.capacitanceF, 'F')} ${formatNominal(reservoir.ratedV, 'V')}`,
      count,
      needed: `${formatQuantity(Math.max(...idle.rails.map((p) => p.can?.maxV ?? 0)), 'V')}, ${formatQuantity(worst((p) => p.can?.rmsA ?? 0) / reservoir.cans, 'A')} ripple`,
      had: `${formatNominal(bankRatedV(reservoir), 'V')}, ${formatQuantity(rating, 'A')}`,
      priceEur: typicalCapacitorPrice(reservoir.capacitanceF, reservoir.ratedV),
    });
  }
  const before = placedParts(design).filter((p) => p.side === 'before').length;
  placedParts(design).forEach(({ part: step, at, side }, n) => {
    const references = refs(side === 'before' ? `before-${n}` : `after-${n - before}`);
    const carried = (of: (element: ElementResult) => number) =>
      worst((p) => Math.max(...p.solution.elements.map((rail) => of(rail[at]!))));
    const count = arrangement.rails;
    if (step.kind === 'choke') {
      add(null, {
        references,
        what: `Choke ${formatNominal(step.inductanceH, 'H')}, ${formatNominal(step.resistanceOhm, 'ohm')}`,
        count,
        needed: formatQuantity(
          carried((e) => e.rmsA),
          'A',
        ),
        had: formatNominal(step.ratedA, 'A'),
        priceEur: typicalStepPrice(step),
      });
    } else if (step.kind === 'resistor') {
      // By its RMS current: ahead of a reservoir that is much more than the mean.
      const watts = carried((e) => e.rmsA) ** 2 * step.resistanceOhm;
      add(null, {
        references,
        what: `Resistor ${formatNominal(step.resistanceOhm, 'ohm')}`,
        count,
        needed: `${formatQuantity(2 * watts, 'W')} (twice its loss)`,
        lossW: watts,
        had: 'as bought',
        priceEur: typicalStepPrice(step),
      });
    } else {
      add(null, {
        references,
        what: `Capacitor ${formatNominal(step.capacitanceF, 'F')} ${formatNominal(step.ratedV, 'V')}`,
        count,
        needed: formatQuantity(Math.max(...idle.solution.elements.map((rail) => rail[at]!.maxV)), 'V'),
        had: formatNominal(step.ratedV, 'V'),
        priceEur: typicalStepPrice(step),
      });
    }
  });
  if (filter.bleederOhm !== null) {
    const watts = idle.rail.maxV ** 2 / filter.bleederOhm;
    add(null, {
      references: refs('bleeder'),
      what: `Bleeder ${formatNominal(filter.bleederOhm, 'ohm')}`,
      count: arrangement.rails,
      needed: `${formatQuantity(2 * watts, 'W')} (twice its loss), ${formatQuantity(idle.rail.maxV, 'V')}`,
      lossW: watts,
      had: 'as bought',
      priceEur: SMALL_EUR.powerResistor,
    });
  }
  const balance = balanceOhmOf(reservoir);
  if (balance !== null) {
    const count = canCount(reservoir) * arrangementFacts(design).cans;
    const volts = Math.max(...idle.rails.map((p) => p.can?.maxV ?? 0)) / 2;
    add(null, {
      references: refs('balance'),
      what: `Balancing resistor ${formatNominal(balance, 'ohm')}, across each can`,
      count,
      needed: `${formatQuantity((2 * volts ** 2) / balance, 'W')} (twice its loss), ${formatQuantity(volts, 'V')}`,
      lossW: volts ** 2 / balance,
      had: 'as bought',
      priceEur: SMALL_EUR.resistor,
    });
  }
  if (indicator) {
    const ohm = indicatorOhm(design)!;
    const watts = indicator.currentA ** 2 * ohm;
    add(null, {
      references: refs('indicator-resistor'),
      what: `Resistor ${formatNominal(Number(ohm.toPrecision(3)), 'ohm')} for the indicator`,
      count: 1,
      needed: `${formatQuantity(2 * watts, 'W')} (twice its loss)`,
      lossW: watts,
      had: 'as bought',
      priceEur: SMALL_EUR.resistor,
    });
    add(null, {
      references: refs('indicator'),
      what: 'Light-emitting diode',
      count: 1,
      needed: formatQuantity(indicator.currentA, 'A'),
      had: 'as bought',
      priceEur: SMALL_EUR.led,
    });
  }
  const model = mainModel(design);
  if (model) {
    add('regulator', {
      references: refs('regulator:device'),
      what: model.name + (arrangement.rails === 2 ? ' and its negative twin' : ''),
      count: arrangement.rails,
      needed: `${formatQuantity(design.demand.outputA, 'A')}, ${formatQuantity(idle.rail.maxV, 'V')} in`,
      had: `${formatQuantity(model.ratedA, 'A')}, ${formatNominal(model.inputMaxV, 'V')} in`,
      priceEur: model.priceEur,
    });
    const ahead = aheadModel(design.preRegulator);
    if (ahead) {
      add(null, {
        references: refs('ahead:device'),
        what: `Ahead of it: ${ahead.name}`,
        count: arrangement.rails,
        needed: `${formatQuantity(design.demand.outputA, 'A')}, ${formatQuantity(idle.rail.maxV, 'V')} in`,
        had: `${formatQuantity(ahead.ratedA, 'A')}, ${formatNominal(ahead.inputMaxV, 'V')} in`,
        priceEur: ahead.priceEur,
      });
    }
    if (heat.sinkKPerW !== null && model.pass.takesSink) {
      add('sink', {
        references: sinkRefs('main'),
        what: `Heatsink ${formatNominal(heat.sinkKPerW, 'K/W')}`,
        count: mainSinks(design),
        needed: `${formatQuantity(
          worst((p) => onMainSinkW(design, p)),
          'W',
        )} to get rid of`,
        had: formatNominal(heat.sinkKPerW, 'K/W'),
        priceEur: typicalSinkPrice(heat.sinkKPerW),
      });
    }
    model.burners.forEach((burner, n) => {
      const watts = worst((p) => Math.max(...p.rails.map((rail) => rail.small[n]?.watts ?? 0)), true);
      add(null, {
        references: refs(`regulator:${burner.label}`),
        what: capitalised(burner.label),
        count: arrangement.rails,
        needed:
          burner.bearsW === null ? `${formatQuantity(2 * watts, 'W')} (twice its loss)` : formatQuantity(watts, 'W'),
        ...(burner.bearsW === null ? { lossW: watts } : {}),
        had: burner.bearsW === null ? 'as bought' : formatNominal(burner.bearsW, 'W'),
        priceEur: SMALL_EUR.powerResistor,
      });
    });
    for (const { what } of pinParts(model)) {
      // A negative twin may want another value: a line of its own then.
      for (const value of new Set(onLine(`regulator:${what}`).map((p) => p.value))) {
        const alike = onLine(`regulator:${what}`).filter((p) => p.value === value);
        add(null, {
          references: referencesOf(alike),
          what: alike[0]!.si ? `${what}, ${value}` : what,
          count: alike.length,
          needed: formatQuantity(idle.rail.maxV, 'V'),
          had: 'as bought',
          priceEur: SMALL_EUR.atPins,
        });
      }
    }
  }
  outputsOf(design)
    .filter((o) => o.place >= 0)
    .forEach((output) => {
      const made = outputModel(output);
      if (!made) return;
      const further = design.outputs[output.place]!;
      const name = outputName(further, output.place);
      add(null, {
        references: referencesOf(netlist.parts.filter((p) => p.output === output.id && p.block === 'regulator')),
        what: `${made.name}, for ${name}, with what stands at its pins`,
        count: 1,
        needed: `${formatQuantity(output.demand.outputA, 'A')}, ${formatQuantity(idle.rails[output.rail]!.rail.maxV, 'V')} in`,
        had: `${formatQuantity(made.ratedA, 'A')}, ${formatNominal(made.inputMaxV, 'V')} in`,
        priceEur: regulatorCost(made),
      });
      if (output.sinkKPerW !== null && made.pass.takesSink && !heat.oneSink) {
        add(null, {
          references: sinkRefs(output.place),
          what: `Heatsink ${formatNominal(output.sinkKPerW, 'K/W')}, for ${name}`,
          count: 1,
          needed: `${formatQuantity(
            worst((p) => p.outputs[output.place]!.regulatorW),
            'W',
          )} to get rid of`,
          had: formatNominal(output.sinkKPerW, 'K/W'),
          priceEur: typicalSinkPrice(output.sinkKPerW),
        });
      }
    });
  if (heat.rectifierSinkKPerW !== null && rectifierSink(design) === 'own') {
    add(null, {
      references: sinkRefs('rectifier'),
      what: `Heatsink ${formatNominal(heat.rectifierSinkKPerW, 'K/W')}, for the rectifier`,
      count: 1,
      needed: `${formatQuantity(
        worst((p) => p.watts.rectifier),
        'W',
      )} to get rid of`,
      had: formatNominal(heat.rectifierSinkKPerW, 'K/W'),
      priceEur: typicalSinkPrice(heat.rectifierSinkKPerW),
    });
  }
  if (insulators(design) > 0) {
    add(null, {
      references: '',
      what: `${thermalInterface(heat.interface).name}, with bushes`,
      count: insulators(design),
      needed: 'one under each device',
      had: 'as bought',
      priceEur: SMALL_EUR.insulator,
    });
  }
  if (heat.fan !== 'none') {
    add(null, {
      references: refs('fan'),
      what: heat.fan === 'switched' ? `Fan, switched on at ${formatNominal(heat.fanOnC, '°C')}` : 'Fan',
      count: 1,
      needed: 'over the sink',
      had: heat.fanA === null ? 'fed from elsewhere' : formatQuantity(heat.fanA, 'A'),
      priceEur: SMALL_EUR.fan,
    });
  }
  heatersOf(design).forEach((heater, n) => {
    const own = n >= (design.heater ? 1 : 0);
    add(null, {
      references: 'T1',
      what: `Heater winding ${formatNominal(heater.ratedV, 'V')}, on the same core${own ? ', for the rectifier alone: it stands at the high volts' : ''}`,
      count: 1,
      needed: formatNominal(heater.currentA, 'A'),
      had: formatNominal(heater.currentA, 'A'),
      priceEur: typicalHeaterPrice(heater),
    });
  });
  if (mainsSide.primaryFuseA !== null && !dc) {
    add(null, {
      references: refs('primary-fuse'),
      what: `Fuse, time-lag ${formatNominal(mainsSide.primaryFuseA, 'A')} with holder`,
      count: 1,
      needed: 'see Mains side',
      had: `${formatNominal(mainsSide.primaryFuseA, 'A')}, 250 V`,
      priceEur: SMALL_EUR.primaryFuse,
    });
  }
  if (mainsSide.secondaryFuseA !== null) {
    const count = secondaryFuses(design);
    add(null, {
      references: refs('secondary-fuse'),
      what: `Fuse ${formatNominal(mainsSide.secondaryFuseA, 'A')} with holder, ${dc ? 'in the lead' : 'at the winding'}`,
      count,
      needed: 'see Mains side',
      had: formatNominal(mainsSide.secondaryFuseA, 'A'),
      priceEur: SMALL_EUR.secondaryFuse,
    });
  }
  const panel = (line: string, what: string, count: number, needed: string, had: string, priceEur: number) =>
    add(null, { references: refs(line), what, count, needed, had, priceEur });
  const mains = `${formatNominal(design.mains.voltageRms, 'V')} mains`;
  // A bought adapter's or a battery's lead comes in by a jack; its line is the source's, and the jack has no name of its own.
  if (dc || transformer.sealed)
    add(null, {
      references: '',
      what: 'Jack for the lead',
      count: 1,
      needed: 'what the source gives',
      had: 'as bought',
      priceEur: SMALL_EUR.jack,
    });
  else {
    const poles = mainsSide.switchPoles;
    panel('inlet', 'Mains inlet', 1, mains, '250 V', SMALL_EUR.inlet);
    panel(
      'switch',
      `Mains switch, ${poles === 2 ? 'two poles' : 'one pole'}`,
      1,
      mains,
      '250 V',
      SMALL_EUR.switch[poles],
    );
    if (mainsSide.thermalCutout)
      panel('cutout', 'Thermal cut-out', 1, `${mains}, at the winding`, '250 V', SMALL_EUR.cutout);
  }
  for (const { id, name, demand } of outputsOf(design))
    panel(
      `terminal-${id}`,
      `Binding post, for ${name}`,
      2,
      formatQuantity(demand.outputA, 'A'),
      'as bought',
      SMALL_EUR.post,
    );
  const { inside } = design.build.box;
  if (inside)
    add(null, {
      references: '',
      what: `Box, ${inside.wMm} × ${inside.dMm} × ${inside.hMm} mm inside`,
      count: 1,
      needed: 'everything in it',
      had: design.mainsSide.box,
      priceEur: typicalBoxPrice(inside),
    });
  return lines;
}

/** The hardest a figure gets while parts warm: the circumstances the verdicts judge heat and ratings in. */
function worstOf(study: Study) {
  return (of: (point: OperatingPoint) => number, everything = false): number =>
    study.conditions.filter((c) => everything || LASTING(c)).reduce((most, c) => Math.max(most, of(study.at(c))), 0);
}

/** Watts the main sink has to get rid of: of one for all, everything on it. */
function onMainSinkW(design: Design, point: OperatingPoint): number {
  const { heat } = design;
  const rails = point.rails.map((p) => p.regulatorW + (p.ahead?.watts ?? 0));
  const rectifierW = rectifierSink(design) === 'shared' ? point.watts.rectifier : 0;
  if (!heat.oneSink) return Math.max(...rails) + rectifierW / rails.length;
  const further = outputsOf(design).reduce(
    (sum, o) => sum + (o.place >= 0 && outputModel(o)?.pass.takesSink ? point.outputs[o.place]!.regulatorW : 0),
    0,
  );
  return rails.reduce((a, b) => a + b, 0) + rectifierW + further;
}

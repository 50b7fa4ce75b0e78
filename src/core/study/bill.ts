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
import { hardestOf, need, twiceItsLoss, type Hardest } from './bill-need';
import { figureText, type Figure } from './figure';
import type { Study } from './study';
import type { BillLine } from './bill-sums';

/** Everything a design is built from, with the ratings its simulation asks for. */
export function billOf(study: Study): BillLine[] {
  const { design, idle, surge } = study;
  const { transformer, reservoir, heat, filter, mainsSide, indicator } = design;
  const worst = hardestOf(study);
  const withoutLoad = (value: number) => ({ value, condition: 'without load, high line' });
  const given = (value: number) => ({ value, condition: '' });
  const arrangement = arrangementOf(design);
  const picks = new Map(partsIn(design).map((p) => [p.role, p]));
  const lines: BillLine[] = [];
  const add = (
    role: PartRole | null,
    line: Omit<BillLine, 'role' | 'fromDrawer' | 'typicalPrice' | 'priceEachEur' | 'lossW' | 'needed' | 'bears'> & {
      needed: string | readonly Figure[];
      priceEur: number;
      lossW?: number;
    },
  ) => {
    const pick = role ? picks.get(role) : undefined;
    const { priceEur, lossW = null, needed, ...rest } = line;
    const bears = typeof needed === 'string' ? [] : needed.map((f) => ({ ...f, id: `${lines.length}: ${f.label}` }));
    const drawerEach = pick && pick.priceEur !== null ? pick.priceEur / line.count : null;
    lines.push({
      ...rest,
      needed: typeof needed === 'string' ? needed : bears.map(figureText).join(', '),
      bears,
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
      needed: [
        need(
          'Current',
          worst((p) => p.solution.windings[0]!.rmsA),
          'A',
          'RMS of what flows out of the source',
        ),
      ],
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
      needed: [
        need(
          'Winding current',
          worst((p) => feedingRmsA(design, p.solution)),
          'A',
          'RMS of the pulses in the winding, of halves the harder one',
          { after: 'RMS' },
        ),
      ],
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
      needed: [
        need('Mean current', meanA, 'A', 'mean of what flows through one diode'),
        dc
          ? need('Reverse volts', withoutLoad(2 * idle.rail.inputMaxV), 'V', '2 × the source, wrong way round', {
              inputs: [{ label: 'source', value: idle.rail.inputMaxV, unit: 'V' }],
            })
          : need('Reverse volts', withoutLoad(2 * reverse), 'V', '2 × peak across one diode while it blocks', {
              inputs: [{ label: 'peak', value: reverse, unit: 'V' }],
              assumes: ['Twice, for what comes over the mains.'],
            }),
        need(
          'First pulse',
          { value: surge.peakA, condition: 'switched on at the worst moment, high line' },
          'A',
          'largest current of the start',
          {
            after: 'once',
            source: 'Simulated: the start from empty cans.',
          },
        ),
      ],
      had: `${formatNominal(diode.averageA, 'A')}, ${formatNominal(diode.reverseV, 'V')}, ${formatNominal(diode.surgeA, 'A')}`,
      priceEur: (diode.priceEur * pieces) / bought,
    });
  if (reservoir.capacitanceF > 0) {
    const count = canCount(reservoir) * arrangementFacts(design).cans;
    const ripple = worst((p) => p.can?.rmsA ?? 0);
    const rating = reservoir.rippleA ?? typicalRippleRating(reservoir.capacitanceF, reservoir.ratedV);
    add('reservoir', {
      references: refs('reservoir'),
      what: `Electrolytic ${formatNominal(reservoir.capacitanceF, 'F')} ${formatNominal(reservoir.ratedV, 'V')}`,
      count,
      needed: [
        need('Volts', withoutLoad(Math.max(...idle.rails.map((p) => p.can?.maxV ?? 0))), 'V', 'peak across it'),
        need('Ripple current', { ...ripple, value: ripple.value / reservoir.cans }, 'A', 'RMS in the bank ÷ cans', {
          after: 'ripple',
          inputs: [
            { label: 'in the bank', value: ripple.value, unit: 'A' },
            { label: 'cans', value: reservoir.cans, unit: '' },
          ],
        }),
      ],
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
        needed: [
          need(
            'Current',
            carried((e) => e.rmsA),
            'A',
            'RMS of what flows through it',
          ),
        ],
        had: formatNominal(step.ratedA, 'A'),
        priceEur: typicalStepPrice(step),
      });
    } else if (step.kind === 'resistor') {
      // By its RMS current: ahead of a reservoir that is much more than the mean.
      const amps = carried((e) => e.rmsA);
      const loss = { ...amps, value: amps.value ** 2 * step.resistanceOhm };
      add(null, {
        references,
        what: `Resistor ${formatNominal(step.resistanceOhm, 'ohm')}`,
        count,
        needed: [
          twiceItsLoss(loss, 'I² R', [
            { label: 'I, RMS', value: amps.value, unit: 'A', origin: 'simulated' },
            { label: 'R', value: step.resistanceOhm, unit: 'ohm' },
          ]),
        ],
        lossW: loss.value,
        had: 'as bought',
        priceEur: typicalStepPrice(step),
      });
    } else {
      add(null, {
        references,
        what: `Capacitor ${formatNominal(step.capacitanceF, 'F')} ${formatNominal(step.ratedV, 'V')}`,
        count,
        needed: [
          need(
            'Volts',
            withoutLoad(Math.max(...idle.solution.elements.map((rail) => rail[at]!.maxV))),
            'V',
            'peak across it',
          ),
        ],
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
      needed: [
        twiceItsLoss(withoutLoad(watts), 'U² ÷ R', [
          { label: 'U, peak', value: idle.rail.maxV, unit: 'V', origin: 'simulated' },
          { label: 'R', value: filter.bleederOhm, unit: 'ohm' },
        ]),
        need('Volts', withoutLoad(idle.rail.maxV), 'V', 'peak across it'),
      ],
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
      needed: [
        twiceItsLoss(withoutLoad(volts ** 2 / balance), 'U² ÷ R', [
          { label: 'U, one can', value: volts, unit: 'V', origin: 'simulated' },
          { label: 'R', value: balance, unit: 'ohm' },
        ]),
        need('Volts', withoutLoad(volts), 'V', 'half of the pair’s peak'),
      ],
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
      needed: [
        twiceItsLoss(given(watts), 'I² R', [
          { label: 'I', value: indicator.currentA, unit: 'A', origin: 'chosen' },
          { label: 'R', value: ohm, unit: 'ohm' },
        ]),
      ],
      lossW: watts,
      had: 'as bought',
      priceEur: SMALL_EUR.resistor,
    });
    add(null, {
      references: refs('indicator'),
      what: 'Light-emitting diode',
      count: 1,
      needed: [
        need('Current', given(indicator.currentA), 'A', 'as chosen', { origin: 'chosen', source: 'Your lamp.' }),
      ],
      had: 'as bought',
      priceEur: SMALL_EUR.led,
    });
  }
  /** What a regulator has to bear: what its load draws, and the volts it stands at without load. */
  const passes = (amps: number, volts: number): Figure[] => [
    need('Current', given(amps), 'A', 'what its load draws', { origin: 'chosen', source: 'Your load.' }),
    need('Volts in', withoutLoad(volts), 'V', 'peak of the rail it hangs on', { after: 'in' }),
  ];
  const toGetRidOf = (watts: Hardest, of: string): Figure[] => [
    need('To get rid of', watts, 'W', of, { after: 'to get rid of' }),
  ];
  const model = mainModel(design);
  if (model) {
    add('regulator', {
      references: refs('regulator:device'),
      what: model.name + (arrangement.rails === 2 ? ' and its negative twin' : ''),
      count: arrangement.rails,
      needed: passes(design.demand.outputA, idle.rail.maxV),
      had: `${formatQuantity(model.ratedA, 'A')}, ${formatNominal(model.inputMaxV, 'V')} in`,
      priceEur: model.priceEur,
    });
    const ahead = aheadModel(design.preRegulator);
    if (ahead) {
      add(null, {
        references: refs('ahead:device'),
        what: `Ahead of it: ${ahead.name}`,
        count: arrangement.rails,
        needed: passes(design.demand.outputA, idle.rail.maxV),
        had: `${formatQuantity(ahead.ratedA, 'A')}, ${formatNominal(ahead.inputMaxV, 'V')} in`,
        priceEur: ahead.priceEur,
      });
    }
    if (heat.sinkKPerW !== null && model.pass.takesSink) {
      add('sink', {
        references: sinkRefs('main'),
        what: `Heatsink ${formatNominal(heat.sinkKPerW, 'K/W')}`,
        count: mainSinks(design),
        needed: toGetRidOf(
          worst((p) => onMainSinkW(design, p)),
          'watts of everything screwed to it',
        ),
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
        needed: [
          burner.bearsW === null
            ? twiceItsLoss(watts, 'volts across it × amperes through it', [])
            : need('Loss', watts, 'W', 'volts across it × amperes through it'),
        ],
        ...(burner.bearsW === null ? { lossW: watts.value } : {}),
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
          needed: [need('Volts', withoutLoad(idle.rail.maxV), 'V', 'peak of the rail it hangs on')],
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
        needed: passes(output.demand.outputA, idle.rails[output.rail]!.rail.maxV),
        had: `${formatQuantity(made.ratedA, 'A')}, ${formatNominal(made.inputMaxV, 'V')} in`,
        priceEur: regulatorCost(made),
      });
      if (output.sinkKPerW !== null && made.pass.takesSink && !heat.oneSink) {
        add(null, {
          references: sinkRefs(output.place),
          what: `Heatsink ${formatNominal(output.sinkKPerW, 'K/W')}, for ${name}`,
          count: 1,
          needed: toGetRidOf(
            worst((p) => p.outputs[output.place]!.regulatorW),
            'watts of its regulator',
          ),
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
      needed: toGetRidOf(
        worst((p) => p.watts.rectifier),
        'watts of all diodes',
      ),
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
      needed: [
        need('Current', given(heater.currentA), 'A', 'what the heaters draw', {
          origin: 'chosen',
          source: 'Your heaters.',
        }),
      ],
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
  const panel = (
    line: string,
    what: string,
    count: number,
    needed: string | readonly Figure[],
    had: string,
    priceEur: number,
  ) => add(null, { references: refs(line), what, count, needed, had, priceEur });
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
      [need('Current', given(demand.outputA), 'A', 'what its load draws', { origin: 'chosen', source: 'Your load.' })],
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

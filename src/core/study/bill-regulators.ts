import { rectifierSink } from '@/core/design/heaters';
import { mainModel, outputModel, outputName, outputsOf } from '@/core/design/outputs';
import { arrangementOf } from '@/core/design/source';
import type { Design } from '@/core/design/design';
import { referencesOf } from '@/core/netlist/references';
import type { OperatingPoint } from './point';
import { capitalised } from '@/core/quantity/format';
import { typicalSinkPrice } from '@/core/parts/heatsink';
import { aheadModel } from '@/core/parts/regulators/ahead';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { SMALL_EUR, mainSinks, pinParts, regulatorCost } from './cost';
import { chosen, need, twiceItsLoss, type Hardest } from './bill-need';
import { type Figure } from './figure';
import type { BillWriter } from './bill-writer';

/** Regulators of every output with what stands at their pins, and what all of them are screwed to. */
export function regulatorLines(writer: BillWriter): void {
  const { study, add, netlist, onLine, refs, sinkRefs, worst, withoutLoad } = writer;
  const { design, idle } = study;
  const { heat } = design;
  const arrangement = arrangementOf(design);
  /** What a regulator has to bear: what its load draws, and the volts it stands at without load. */
  const passes = (amps: number, volts: number): Figure[] => [
    need('Current', chosen(amps, 'Your load.'), 'A', 'what its load draws'),
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

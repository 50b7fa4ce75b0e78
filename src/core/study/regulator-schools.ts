import { mainModel, outputsOf } from '@/core/design/outputs';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { regulatorOfKind } from '@/core/design/regulator-edit';
import { STANDARD_SINKS_K_PER_W } from '@/core/parts/heatsink';
import { formatQuantity } from '@/core/quantity/format';
import { feedCost } from './cost';
import type { Figure, FigureInput } from './figure';
import { lossesOf } from './losses';
import { LASTING } from './occasion';
import { studyDesign, studyWithHeat, type Study } from './study';

/** One way of doing a thing, as a change of this design. */
export interface Way {
  id: string;
  name: string;
  creed: string;
  patch: Patch;
}

/** Ready-made against discrete, on this design's own output, load and rail. */
export function regulatorWays(design: Design): Way[] {
  const kind = design.regulator.kind;
  const of = (id: Parameters<typeof regulatorOfKind>[1]): Patch => ({
    regulator: kind === id ? design.regulator : regulatorOfKind(design, id),
  });
  return [
    {
      id: 'ready-made',
      name: 'Ready-made',
      creed: 'A three-terminal part: limits itself, guards itself, works at once. Enough for nearly everything.',
      patch: of(kind === 'fixed' || kind === 'low-dropout' ? kind : 'adjustable'),
    },
    {
      id: 'discrete',
      name: 'Discrete',
      creed:
        'Zener, error and pass transistor: any volts and amps, repairable with what lies about, guarded by nothing you do not add.',
      patch: of('error-transistor'),
    },
    {
      id: 'op-amp',
      name: 'Op-amp',
      creed: 'Volts and amps by knobs from zero, exact and quiet; its amplifiers have to bear the raw rail.',
      patch: of('bench'),
    },
  ];
}

/** Passive and oversized against a fan: the smallest sink either way that keeps the junction 20 K below its limit. */
export function coolingWays(design: Design): Way[] {
  const model = mainModel(design);
  if (!model?.pass.takesSink) return [];
  const study = studyDesign(design);
  const smallest = (fan: 'none' | 'fixed'): number => {
    const fits = STANDARD_SINKS_K_PER_W.find((sinkKPerW) => {
      const cooled = studyWithHeat(study, { sinkKPerW, fan });
      return hottest(cooled) <= model.pass.junctionMaxC - 20;
    });
    return fits ?? STANDARD_SINKS_K_PER_W[STANDARD_SINKS_K_PER_W.length - 1]!;
  };
  return [
    {
      id: 'passive',
      name: 'Passive',
      creed: 'A larger sink: silent, nothing to wear out, and it stays cool when dust would have stopped a fan.',
      patch: { heat: { fan: 'none', sinkKPerW: smallest('none') } },
    },
    {
      id: 'fan',
      name: 'With a fan',
      creed: 'A small sink and moving air: half the metal, some noise, and a part that will fail one day.',
      patch: { heat: { fan: 'fixed', sinkKPerW: smallest('fixed') } },
    },
  ];
}

function hottest(study: Study): number {
  return Math.max(...study.conditions.filter(LASTING).map((c) => study.at(c).heat?.junctionC ?? 0));
}

/** Linear beside a switching converter for the same load: the linear side simulated, the other estimated. */
export interface Technology {
  /** What is compared: this supply's figure beside a bought converter's. */
  lines: { label: string; linear: Figure; switching: Figure }[];
  /** Whether linear still makes sense, said honestly. */
  verdict: string;
}

/** Efficiency, weight, price and ripple of ordinary bought converters: fed from the mains, or a module behind a DC source. */
const SWITCHING = {
  mains: { efficiency: 0.86, kgPerW: 0.004, baseKg: 0.12, eurPerW: 0.28, baseEur: 9, rippleV: 0.05 },
  dc: { efficiency: 0.88, kgPerW: 0.001, baseKg: 0.02, eurPerW: 0.1, baseEur: 3, rippleV: 0.05 },
};

export function technologies(design: Design, costEur: number): Technology {
  const study = studyDesign(design);
  const { nominal, low } = study;
  const dc = design.source.kind !== 'mains';
  const bought = SWITCHING[dc ? 'dc' : 'mains'];
  const losses = lossesOf(design, nominal);
  const deliveredW = nominal.watts.load;
  const switchingLostW = deliveredW * (1 / bought.efficiency - 1) + 0.3;
  const sinkKg = design.heat.sinkKPerW === null ? 0 : (50 / design.heat.sinkKPerW) ** 2 * 0.2 * 2.7e-3;
  const quiet = outputsOf(design).some((o) => o.demand.rippleVpp < bought.rippleV);
  const share = losses.totalW / Math.max(deliveredW, 1e-9);
  const verdict = quiet
    ? 'Linear is right here: a converter’s ripple is more than this load allows, and filtering it is a project of its own.'
    : deliveredW > 60
      ? 'Told honestly: for this load a bought converter is lighter, cooler and cheaper. Build linear for the joy, the quiet or the repair.'
      : share > 1.2
        ? dc
          ? 'Linear burns more than it delivers here: a converter would make the source last longer, where its noise does not matter.'
          : 'Linear burns more than it delivers here; where hum and noise do not matter a converter makes more sense.'
        : 'Both make sense: linear is heavier and warmer, quiet, simple and repairable.';
  const coreKg = dc ? 0.05 : 0.25 + 0.017 * design.transformer.ratedVA;
  const thumb = (label: string, value: number, unit: Figure['unit'], expression: string, inputs: FigureInput[] = []) =>
    told('rule of thumb', `${label}, a bought converter`, value, unit, expression, inputs);
  const watts = { label: 'delivered', value: deliveredW, unit: 'W', origin: 'simulated' } as const;
  return {
    lines: [
      {
        label: `Lost while delivering ${formatQuantity(deliveredW, 'W')}`,
        linear: told('simulated', 'Lost, this one', losses.totalW, 'W', 'the sum of what every part burns', [watts]),
        switching: thumb('Lost', switchingLostW, 'W', 'delivered × (1 / efficiency − 1) + 0.3 W at rest', [
          watts,
          { label: 'efficiency', value: 100 * bought.efficiency, unit: '%', origin: 'typical' },
        ]),
      },
      {
        label: 'Ripple and noise on the output',
        linear: told('simulated', 'Ripple, this one', low.outputRippleVpp, 'V', 'peak to peak behind the regulator'),
        switching: thumb('Ripple', bought.rippleV, 'V', 'what such converters usually print'),
      },
      {
        label: 'Weight',
        linear: told(
          'rule of thumb',
          'Weight, this one',
          coreKg + sinkKg,
          'kg',
          dc ? '0.05 kg of parts + sink' : '0.25 kg + 17 g a VA of transformer + sink',
          [{ label: 'sink', value: sinkKg, unit: 'kg' }],
        ),
        switching: thumb('Weight', bought.baseKg + bought.kgPerW * deliveredW, 'kg', 'so much a watt delivered', [
          watts,
        ]),
      },
      {
        label: 'Parts or price',
        linear: told(
          'typical',
          'Parts, this one',
          costEur - (dc ? feedCost(design) : 0),
          'EUR',
          dc ? 'the bill without what feeds it' : 'the sum of the bill',
        ),
        switching: thumb('Price', bought.baseEur + bought.eurPerW * deliveredW, 'EUR', 'so much a watt delivered', [
          watts,
        ]),
      },
    ],
    verdict,
  };
}

/** One figure of the comparison. */
function told(
  origin: Figure['origin'],
  label: string,
  value: number,
  unit: Figure['unit'],
  expression: string,
  inputs: FigureInput[] = [],
): Figure {
  return {
    id: label,
    label,
    value,
    unit,
    origin,
    expression,
    inputs,
    source: origin === 'simulated' ? 'This design, solved.' : 'What ordinary parts of the kind come to.',
    assumes: [],
  };
}

/** The design each way makes. */
export function designOf(design: Design, way: Way): Design {
  return applyPatch(design, way.patch);
}

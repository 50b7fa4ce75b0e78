import { heatersOf, rectifierPieces, rectifierSink } from '@/core/design/heaters';
import { arrangementFacts, arrangementOf, dcSourceOf } from '@/core/design/source';
import { canCount } from '@/core/design/bank';
import { sinksOf } from '@/core/design/sinks';
import type { Design, FilterStep, FurtherOutput, Heater } from '@/core/design/design';
import { windingCount } from '@/core/design/words';
import { typicalCapacitorPrice } from '@/core/parts/capacitor';
import { typicalSourcePrice } from '@/core/parts/dc-source';
import { diodeClass } from '@/core/parts/diode';
import { typicalSinkPrice } from '@/core/parts/heatsink';
import { mainModel, outputModel, outputsOf } from '@/core/design/outputs';
import type { RegulatorModel, SmallPart } from '@/core/parts/regulators/model';
import { aheadModel } from '@/core/parts/regulators/ahead';
import { typicalTransformerPrice } from '@/core/parts/transformer';

/** What small parts cost each, EUR, typical. */
export const SMALL_EUR = {
  resistor: 0.05,
  powerResistor: 0.5,
  led: 0.3,
  atPins: 0.1,
  insulator: 0.5,
  fan: 4,
  primaryFuse: 1.2,
  secondaryFuse: 1,
  inlet: 1.2,
  switch: { 1: 1.5, 2: 2.5 },
  cutout: 1.5,
  jack: 0.8,
  post: 0.8,
};

/** Capacitors and diodes at a regulator's pins: what of its small parts is bought beside what burns. */
export function pinParts({ small }: RegulatorModel): SmallPart[] {
  return small.filter((s) => s.unit === 'F' || s.unit === '');
}

/** Secondary fuses: one for each winding or half, or one in the lead of a DC source. */
export function secondaryFuses(design: Design): number {
  return design.mainsSide.secondaryFuseA === null ? 0 : windingCount(design);
}

/** How many sinks the regulators of the main output and its twin stand on: one for both, or one each. */
export const mainSinks = (design: Design): number => sinksOf(design).filter((s) => s.of === 'main').length;

/** How many insulating washers the regulators want: one under each device whose metal is not at ground. */
export function insulators(design: Design): number {
  const { heat } = design;
  if (heat.interface !== 'mica' && heat.interface !== 'pad') return 0;
  return outputsOf(design).reduce((sum, o) => {
    const pass = outputModel(o)?.pass;
    const cooled = o.place < 0 || heat.oneSink ? heat.sinkKPerW !== null : o.sinkKPerW !== null;
    return sum + (pass?.takesSink && cooled ? pass.fitted : 0);
  }, 0);
}

/** Typical hobby price of the parts of a design, EUR: a rule of thumb for comparing choices, not an offer. */
export function typicalCost(design: Design): number {
  const { rails } = arrangementOf(design);
  const { reservoir, heat, filter, indicator, mainsSide } = design;
  const model = mainModel(design);
  const steps = [...filter.before, ...filter.after].reduce((sum, s) => sum + typicalStepPrice(s), 0);
  return (
    feedCost(design) +
    rectifierPieces(design) * diodeClass(design.rectifier.diode).priceEur +
    arrangementFacts(design).cans *
      canCount(reservoir) *
      (typicalCapacitorPrice(reservoir.capacitanceF, reservoir.ratedV) + (reservoir.pair ? SMALL_EUR.resistor : 0)) +
    rails * (steps + (filter.bleederOhm === null ? 0 : SMALL_EUR.powerResistor)) +
    rails * (model ? regulatorCost(model) + (aheadModel(design.preRegulator)?.priceEur ?? 0) : 0) +
    mainSinks(design) * (heat.sinkKPerW === null ? 0 : typicalSinkPrice(heat.sinkKPerW)) +
    (rectifierSink(design) === 'own' ? typicalSinkPrice(heat.rectifierSinkKPerW!) : 0) +
    insulators(design) * SMALL_EUR.insulator +
    (heat.fan === 'none' ? 0 : SMALL_EUR.fan) +
    (indicator ? SMALL_EUR.led + SMALL_EUR.resistor : 0) +
    (mainsSide.primaryFuseA === null || dcSourceOf(design) ? 0 : SMALL_EUR.primaryFuse) +
    secondaryFuses(design) * SMALL_EUR.secondaryFuse +
    panelCost(design) +
    typicalBoxPrice(design.build.box.inside) +
    design.outputs.reduce((sum, o) => sum + outputCost(design, o), 0)
  );
}

/** A box as sold, by its room, EUR typical; nothing while none is chosen. */
export function typicalBoxPrice(inside: Design['build']['box']['inside']): number {
  if (inside === null) return 0;
  const litres = (inside.wMm * inside.dMm * inside.hMm) / 1e6;
  return 5 + 4 * litres;
}

/** What brings the mains or a source's lead in, and the outputs out, EUR typical. */
function panelCost(design: Design): number {
  const { mainsSide, transformer } = design;
  const posts = 2 * outputsOf(design).length * SMALL_EUR.post;
  if (dcSourceOf(design) || transformer.sealed) return posts + SMALL_EUR.jack;
  return (
    posts + SMALL_EUR.inlet + SMALL_EUR.switch[mainsSide.switchPoles] + (mainsSide.thermalCutout ? SMALL_EUR.cutout : 0)
  );
}

/** A regulator with the parts at its pins and those of it that burn watts, EUR typical. */
export function regulatorCost(model: RegulatorModel): number {
  return model.priceEur + pinParts(model).length * SMALL_EUR.atPins + model.burners.length * SMALL_EUR.powerResistor;
}

/** One more winding on the same core, EUR. */
export function typicalHeaterPrice({ ratedV, currentA }: Heater): number {
  return 2 + 0.15 * ratedV * currentA;
}

/** Transformer and heater winding, or the DC source in their place, EUR typical. */
export function feedCost(design: Design): number {
  const dc = dcSourceOf(design);
  if (dc) return typicalSourcePrice(dc);
  const { transformer } = design;
  return (
    typicalTransformerPrice(transformer.ratedVA, windingCount(design)) +
    heatersOf(design).reduce((sum, h) => sum + typicalHeaterPrice(h), 0)
  );
}

function outputCost(design: Design, output: FurtherOutput): number {
  const model = outputModel(output);
  if (!model) return 0;
  const sink = output.sinkKPerW !== null && model.pass.takesSink && !design.heat.oneSink;
  return regulatorCost(model) + (sink ? typicalSinkPrice(output.sinkKPerW!) : 0);
}

/** A choke costs by the energy its core has to store, a resistor next to nothing. */
export function typicalStepPrice(step: FilterStep): number {
  if (step.kind === 'capacitor') return typicalCapacitorPrice(step.capacitanceF, step.ratedV);
  if (step.kind === 'resistor') return 0.3;
  return 3 + 22 * (0.5 * step.inductanceH * step.ratedA ** 2) ** 0.6;
}

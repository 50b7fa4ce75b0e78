import { regulatorModel } from '@/core/parts/regulators';
import type { RegulatorModel } from '@/core/parts/regulators/model';
import { packageOf } from '@/core/parts/packages';
import { passTransistor, safeCurrent } from '@/core/parts/transistor';
import { formatNominal } from '@/core/quantity/format';
import { recently } from '@/core/quantity/recently';
import { mapped } from '@/core/quantity/lists';
import type { Design, FurtherOutput, OutputDemand, OutputId, Regulator, RegulatorSheet, Span } from './design';
import { arrangementOf } from './source';

/** One output of a supply, whichever it is. */
export interface Output {
  id: OutputId;
  name: string;
  /** 0 the plus rail, 1 the minus one. */
  rail: 0 | 1;
  /** Place among the further outputs; -1 for the main one and its twin. */
  place: number;
  demand: OutputDemand;
  regulator: Regulator;
  regulatorSheet: RegulatorSheet | null;
  sinkKPerW: number | null;
}

/** Every output there is: the main one, its twin on the minus rail of a split supply, then the further ones. */
export const outputsOf: (design: Design) => readonly Output[] = recently(8, outputsIn);

/** In words; a search has thousands of designs for one load. */
const voltsOf = recently(8, ({ outputV }: Design['demand']) => formatNominal(outputV, 'V'));

function outputsIn(design: Design): Output[] {
  const { demand, regulator, regulatorSheet, heat } = design;
  const split = arrangementOf(design).rails === 2;
  const { negativeA, ...main } = demand;
  const own = { place: -1, regulator, regulatorSheet, sinkKPerW: heat.sinkKPerW };
  const share = negativeA === null ? 1 : negativeA / demand.outputA;
  const twin: OutputDemand = {
    ...main,
    outputA: negativeA ?? main.outputA,
    typicalA: main.typicalA === null ? null : main.typicalA * share,
    leastA: main.leastA * share,
  };
  return [
    { id: 'main', name: `${split ? '+' : ''}${voltsOf(demand)}`, rail: 0, demand: main, ...own },
    ...(split ? [{ id: 'minus' as const, name: `−${voltsOf(demand)}`, rail: 1 as const, demand: twin, ...own }] : []),
    ...mapped(design.outputs, (o, n): Output => ({ ...furtherOutput(design, o, n), name: outputName(o, n) })),
  ];
}

function furtherOutput(design: Design, output: FurtherOutput, n: number): Omit<Output, 'name'> {
  // A rail that the arrangement does not have is said at its line; until then it hangs where there is one.
  const rail = output.rail === 'minus' && arrangementOf(design).rails === 2 ? 1 : 0;
  const { demand, regulator, regulatorSheet, sinkKPerW } = output;
  return { id: `out-${n + 1}`, rail, place: n, demand, regulator, regulatorSheet, sinkKPerW };
}

/** What a further output is called: by its name, or by its volts. */
export function outputName({ name, rail, demand, regulator }: FurtherOutput, n: number): string {
  if (name.trim() !== '') return name;
  const volts = regulatorModel(regulator)?.outputV ?? demand.outputV;
  return `Output ${n + 2}, ${rail === 'minus' ? '−' : ''}${formatNominal(Number(volts.toPrecision(3)), 'V')}`;
}

/** What a consumer's output is called, or null where the design has none of that name. */
export function nameOfOutput(design: Design, id: OutputId): string | null {
  return outputsOf(design).find((o) => o.id === id)?.name ?? null;
}

/** Volts an output has to stay between. */
export function windowOf({ outputV, tolerancePct, window }: OutputDemand): Span {
  return window ?? { lowV: outputV * (1 - tolerancePct / 100), highV: outputV * (1 + tolerancePct / 100) };
}

type Regulated = Pick<Output, 'regulator' | 'regulatorSheet' | 'demand'>;

/** A regulator as it works at one output: by its class, overruled by its data sheet, set between what is wanted of it. */
export const outputModel: (output: Regulated) => RegulatorModel | null = recently(16, modelAt);

function modelAt({ regulator, regulatorSheet, demand }: Regulated): RegulatorModel | null {
  const made = regulatorModel(regulator);
  if (!made) return null;
  const model = regulatorSheet ? bySheet(made, regulator, regulatorSheet) : made;
  const { lowestV, outputV: highestV } = model;
  if (lowestV > highestV - 0.01) return model;
  const within = (v: number) => Math.min(highestV, Math.max(lowestV, v));
  const top = within(demand.range?.highV ?? demand.outputV);
  return { ...model, outputV: top, lowestV: Math.min(top, within(demand.range?.lowV ?? lowestV)) };
}

function bySheet(model: RegulatorModel, regulator: Regulator, sheet: RegulatorSheet): RegulatorModel {
  const ratedA = sheet.ratedA ?? model.ratedA;
  const dropout = sheet.dropoutV;
  // Of a dropout given at the rated current the class's share is left without load.
  const idle = model.dropoutV / Math.max(model.dropoutV + model.dropoutOhm * model.ratedA, 1e-9);
  return {
    ...model,
    ratedA,
    ...(dropout === null ? {} : { dropoutV: idle * dropout, dropoutOhm: ((1 - idle) * dropout) / ratedA }),
    ...(sheet.inputMaxV === null
      ? {}
      : { inputMaxV: sheet.inputMaxV, inputLimitSource: 'Input maximum by your data sheet.' }),
    pass: {
      ...model.pass,
      ...housed(model, sheet),
      jcKPerW: sheet.jcKPerW ?? model.pass.jcKPerW,
      safeA: 'transistor' in regulator ? areaBySheet(regulator.transistor, sheet) : model.pass.safeA,
    },
    theirs: Object.entries(sheet).flatMap(([key, v]) => (v === null ? [] : [key])),
  };
}

/** In another housing it gives to free air what that one does. */
function housed({ pass }: RegulatorModel, sheet: RegulatorSheet): Partial<RegulatorModel['pass']> {
  const other = sheet.package === null || sheet.package === pass.package ? null : packageOf(sheet.package);
  const jaKPerW = sheet.jaKPerW ?? other?.jaKPerW ?? pass.jaKPerW;
  return other ? { package: other.id, takesSink: other.takesSink, jaKPerW } : { jaKPerW };
}

function areaBySheet(transistor: string, sheet: RegulatorSheet): (volts: number) => number {
  const made = passTransistor(transistor);
  const own = {
    ...made,
    maxV: sheet.inputMaxV ?? made.maxV,
    powerW: sheet.powerW ?? made.powerW,
    secondBreakdownV: sheet.breakdownV ?? made.secondBreakdownV,
  };
  return (volts) => safeCurrent(own, volts);
}

/** The regulator of the main output. */
export function mainModel(design: Design): RegulatorModel | null {
  return outputModel(design);
}

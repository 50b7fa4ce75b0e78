import { heldAmps, outputLoad } from '@/core/circuit/loads-of';
import { type Condition } from '@/core/circuit/condition';
import { regulatorOutput } from '@/core/circuit/load-law';
import { applyPatch, type Design, type FurtherOutput } from '@/core/design/design';
import { thermalInterface } from '@/core/parts/heatsink';
import { regulatorModel } from '@/core/parts/regulators';
import { dropoutAt } from '@/core/parts/regulators/model';
import { regulatorHeat, type RegulatorHeat } from './heat';

/** One further regulator under one condition. */
export interface OutputPoint {
  outputMeanV: number;
  outputMinV: number;
  outputMaxV: number;
  outputRippleVpp: number;
  outputMeanA: number;
  /** Valley of the rail less what this regulator needs, V. */
  headroomV: number;
  regulatorW: number;
  loadW: number;
  heat: RegulatorHeat | null;
}

/** What a rail does, as far as a regulator on it minds. */
interface RailWave {
  minV: number;
  ripplePeakToPeakV: number;
  /** Samples over one cycle, V. */
  railV: readonly number[];
}

/** A hard-working junction, °C: where warmth adds to the dropout. */
const WARM_C = 100;

/** The input a further regulator needs to hold its output, at the worse of a cold and a warm junction, V. */
export function outputNeedsV({ regulator, currentA }: FurtherOutput): number {
  const model = regulatorModel(regulator);
  return model.outputV + Math.max(dropoutAt(model, currentA), dropoutAt(model, currentA, WARM_C));
}

/** What each further regulator makes of a rail, its temperature aside. @param rippleHz of the rail, Hz */
export function outputPoints(
  design: Design,
  condition: Pick<Condition, 'load' | 'output' | 'further'>,
  rail: RailWave,
  rippleHz: number,
): OutputPoint[] {
  return design.outputs.map((output, k): OutputPoint => {
    if (k === condition.further && condition.output) return heldPoint(output, condition.output, rail);
    const model = regulatorModel(output.regulator);
    const load = outputLoad(output, condition.load);
    const n = rail.railV.length;
    let outSum = 0;
    let ampSum = 0;
    let loadW = 0;
    let burntW = 0;
    let low = Infinity;
    let high = -Infinity;
    for (const v of rail.railV) {
      const out = regulatorOutput(load, v);
      const amps = (load.currentA * out) / load.outputV;
      outSum += out;
      ampSum += amps;
      loadW += (out * amps) / n;
      burntW += ((v - out) * amps + v * load.quiescentA) / n;
      low = Math.min(low, out);
      high = Math.max(high, out);
    }
    const left = 10 ** (-model.rejectionDb(rippleHz) / 20);
    return {
      outputMeanV: outSum / n,
      outputMinV: low,
      outputMaxV: high,
      outputRippleVpp: high - low + rail.ripplePeakToPeakV * left,
      outputMeanA: ampSum / n,
      headroomV: rail.minV - outputNeedsV(output),
      regulatorW: burntW,
      loadW,
      heat: null,
    };
  });
}

/** A further regulator whose output is held low: everything between it and the rail burns in it. */
function heldPoint(output: FurtherOutput, how: 'lowest' | 'shorted', rail: RailWave): OutputPoint {
  const model = regulatorModel(output.regulator);
  const amps = heldAmps(output, how);
  const held = how === 'shorted' ? 0 : model.lowestV;
  const railV = rail.railV.reduce((sum, v) => sum + v, 0) / rail.railV.length;
  return {
    outputMeanV: held,
    outputMinV: held,
    outputMaxV: held,
    outputRippleVpp: 0,
    outputMeanA: amps,
    headroomV: rail.minV - outputNeedsV(output),
    regulatorW: Math.max(0, railV - held) * amps + railV * model.quiescentA,
    loadW: held * amps,
    heat: null,
  };
}

/**
 * Temperatures of a further regulator on its own sink, in the air of the same box, or on the sink of the main one.
 * @param boxW all watts in the box, W
 * @param main the main regulator's temperatures, where it has one
 */
export function outputHeat(
  design: Design,
  output: FurtherOutput,
  watts: number,
  boxW: number,
  main: RegulatorHeat | null,
): RegulatorHeat | null {
  const { pass } = regulatorModel(output.regulator);
  if (design.heat.oneSink && pass.takesSink && main && main.chain.length > 1) {
    const contact = thermalInterface(design.heat.interface);
    const kPerW = (pass.jcKPerW + contact.kPerW) / pass.count;
    return {
      ...main,
      junctionC: main.sinkC + watts * kPerW,
      thetaTotalKPerW: kPerW,
      chain: [
        { label: 'junction to case', kPerW: pass.jcKPerW / pass.count },
        { label: `case to the shared sink (${contact.name.toLowerCase()})`, kPerW: contact.kPerW / pass.count },
      ],
    };
  }
  return regulatorHeat(asMain(design, output), { regulatorW: watts, othersW: 0, boxW });
}

/** The design as it would be if a further output were its main one: what rules about one regulator look at. */
export function asMain(design: Design, { regulator, currentA, sinkKPerW }: FurtherOutput): Design {
  return applyPatch(design, {
    demand: { outputV: regulatorModel(regulator).outputV, outputA: currentA, typicalA: null, negativeA: null },
    regulator,
    preRegulator: { kind: 'none' },
    outputs: [],
    heat: design.heat.oneSink ? { sharedWithRectifier: false } : { sinkKPerW, sharedWithRectifier: false, fan: 'none' },
  });
}

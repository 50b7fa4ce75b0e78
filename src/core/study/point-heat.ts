import type { Design } from '@/core/design/design';
import { rectifierSink } from '@/core/design/heaters';
import { outputModel, outputsOf, type Output } from '@/core/design/outputs';
import { thermalInterface } from '@/core/parts/heatsink';
import { aheadModel } from '@/core/parts/regulators/ahead';
import { mapped } from '@/core/quantity/lists';
import { onSharedSink, regulatorHeat, type RegulatorHeat } from './heat';
import { lossesOf } from './losses';
import type { AheadPoint } from './output-point';
import type { OperatingPoint } from './point';

/** The same point with the temperatures its sinks, interfaces and air give its regulators. */
export function warmed(design: Design, point: OperatingPoint): OperatingPoint {
  return withHeat(design, {
    ...point,
    rails: mapped(point.rails, (p) => ({ ...p })),
    outputs: mapped(point.outputs, (p) => ({ ...p })),
  });
}

/** Sets those temperatures in a point nobody has seen yet, and answers it. */
export function withHeat(design: Design, point: OperatingPoint): OperatingPoint {
  const { heat } = design;
  const { watts, rails } = point;
  const outputs = outputsOf(design);
  const boxW = lossesOf(design, point).insideW;
  const rectifierW = rectifierSink(design) === 'shared' ? watts.rectifier : 0;
  const sinkable = (o: Output) => outputModel(o)?.pass.takesSink ?? false;
  const furtherOnSinkW = point.outputs.reduce((sum, p, n) => {
    const output = outputs.find((o) => o.place === n)!;
    return sum + (sinkable(output) ? p.regulatorW : 0);
  }, 0);
  rails.forEach((p, r) => {
    const output = outputs.find((o) => o.place < 0 && o.rail === r)!;
    const model = outputModel(output);
    if (!model) return;
    const ownW = p.regulatorW + (p.ahead?.watts ?? 0);
    const othersW = heat.oneSink
      ? rectifierW + watts.regulator - p.regulatorW + furtherOnSinkW
      : rectifierW / rails.length + ownW - p.regulatorW;
    p.heat = regulatorHeat(
      design,
      { pass: model.pass, sinkKPerW: heat.sinkKPerW, blown: true },
      { regulatorW: p.regulatorW, othersW, boxW },
    );
    if (p.ahead) p.ahead = aheadWarmed(design, p.ahead, p.heat);
  });
  const main = rails[0]!.heat;
  point.heat = main;
  point.ahead = rails[0]!.ahead;
  point.outputs.forEach((p, n) => {
    const output = outputs.find((o) => o.place === n)!;
    const model = outputModel(output);
    if (!model) return;
    const shared = heat.oneSink && model.pass.takesSink && main !== null && main.chain.length > 1;
    p.heat = shared
      ? onSharedSink(design, model.pass, p.regulatorW, main)
      : regulatorHeat(
          design,
          { pass: model.pass, sinkKPerW: output.sinkKPerW, blown: false },
          { regulatorW: p.regulatorW, othersW: 0, boxW },
        );
  });
  return point;
}

/** A pre-regulator on the sink of its regulator, or in the same air. */
function aheadWarmed(design: Design, point: AheadPoint, main: RegulatorHeat): AheadPoint {
  const ahead = aheadModel(design.preRegulator)!;
  const cooled = ahead.takesSink && main.chain.length > 1;
  const contact = thermalInterface(design.heat.interface).kPerW;
  return {
    ...point,
    junctionC: cooled ? main.sinkC + point.watts * (ahead.jcKPerW + contact) : main.airC + point.watts * ahead.jaKPerW,
  };
}

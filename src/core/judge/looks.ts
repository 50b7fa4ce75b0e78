import type { Condition, ConditionId } from '@/core/circuit/condition';
import type { Adjust } from '@/core/circuit/network-of';
import { applyPatch, type Design } from '@/core/design/design';
import { outputsOf, type Output } from '@/core/design/outputs';
import type { RegulatorModel } from '@/core/parts/regulators/model';
import { recently } from '@/core/quantity/recently';
import { modelUnder } from '@/core/study/output-point';
import { onRail, type OperatingPoint } from '@/core/study/point';
import type { Study } from '@/core/study/study';
import { mapped } from '@/core/quantity/lists';
import type { Look } from './rule';

/** The design as it would be if one of its outputs were its main one: what rules about one output look at. */
export function asMain(design: Design, output: Output): Design {
  if (output.id === 'main') return design;
  const demand = { ...output.demand, negativeA: null };
  if (output.place < 0) return applyPatch(design, { demand });
  const { regulator, regulatorSheet, sinkKPerW } = output;
  return applyPatch(design, {
    demand,
    regulator,
    regulatorSheet,
    preRegulator: { kind: 'none' },
    outputs: [],
    heat: design.heat.oneSink ? { sharedWithRectifier: false } : { sinkKPerW, sharedWithRectifier: false, fan: 'none' },
  });
}

/** A point seen from one output: its rail, and on a further output what that itself does. */
export function seenFrom(point: OperatingPoint, output: Output): OperatingPoint {
  if (output.id === 'main') return point;
  const rail = onRail(point, output.rail);
  return output.place < 0 ? rail : { ...rail, ...point.outputs[output.place]! };
}

/** One circumstance, seen from one rail or output: every rule is shown the same. */
class Glance implements Look {
  readonly study: Study;
  readonly adjust: Adjust;
  readonly design: Design;
  readonly output: Output;
  readonly model: RegulatorModel | null;
  private seen: OperatingPoint | null = null;

  constructor(
    { study, design, output, model }: Pick<Side, 'study' | 'design' | 'output' | 'model'>,
    private readonly condition: Condition | null,
  ) {
    this.study = study;
    this.adjust = study.adjust;
    this.design = design;
    this.output = output;
    this.model = model;
  }

  get at(): OperatingPoint {
    const { study, condition } = this;
    return (this.seen ??= seenFrom(condition ? study.at(condition) : study.nominal, this.output));
  }
}

/** A study seen from one of its outputs, circumstance by circumstance, each when it is first asked for. */
export class Side {
  readonly design: Design;
  readonly model: RegulatorModel | null;
  /** What happens once. */
  readonly once: Look;
  private readonly looks = new Map<ConditionId, Look>();

  constructor(
    readonly study: Study,
    readonly output: Output,
  ) {
    this.design = asMain(study.design, output);
    this.model = modelUnder(output, output.place < 0 ? study.adjust : {});
    this.once = new Glance(this, null);
  }

  in(condition: Condition): Look {
    let look = this.looks.get(condition.id);
    if (!look) this.looks.set(condition.id, (look = new Glance(this, condition)));
    return look;
  }
}

/** A study from every output it has, the main one first. */
export const sidesOf = recently(4, (study: Study): readonly Side[] =>
  mapped(outputsOf(study.design), (output) => new Side(study, output)),
);

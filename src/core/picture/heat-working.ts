import type { FigureInput } from '@/core/study/figure';
import type { RegulatorHeat } from '@/core/study/heat';
import { mapped } from '@/core/quantity/lists';
import { computed, simulated, typical } from './working';

export interface HeatWorking {
  expression: string;
  inputs: FigureInput[];
}

/** Watts on a sink that are not the part's own, as a share of its own, from which on they are told apart. */
const OTHERS_SHARE = 1e-9;

/**
 * How a junction comes to its temperature: through its own chain to the air, or onto a sink that others warm as well.
 * @param watts what the part itself gives off, W
 * @param link how one resistance of the chain is shown: typical, or from a data sheet
 */
export function junctionWorking(
  heat: RegulatorHeat,
  watts: number,
  link: (label: string, kPerW: number, n: number) => FigureInput = (label, kPerW) => typical(label, kPerW, 'K/W'),
): HeatWorking {
  const own = mapped(heat.chain, (c, n) => link(c.label, c.kPerW, n));
  const sum = (links: readonly FigureInput[]) => mapped(links, (i) => i.label).join(' + ');
  const air = computed(heat.sink ? 'air at the sink' : 'air', heat.airC, '°C');
  const part = simulated('watts in it', watts, 'W');
  if (!heat.sink) return { expression: `air + watts × ${sum(own)}`, inputs: [air, part, ...own] };
  if (own.length > 2 && heat.sink.watts <= watts * (1 + OTHERS_SHARE))
    return { expression: `air + watts × (${sum(own)})`, inputs: [air, part, ...own] };
  const onto = own.slice(0, 2);
  return {
    expression: `air + all watts on the sink × ${heat.sink.label} + watts × (${sum(onto)})`,
    inputs: [
      air,
      simulated('all watts on the sink', heat.sink.watts, 'W'),
      typical(heat.sink.label, heat.sink.kPerW, 'K/W'),
      part,
      ...onto,
    ],
  };
}

/** How the metal a finger would touch comes to its temperature: the sink's, or the part's own case. */
export function metalWorking(heat: RegulatorHeat, watts: number, jcKPerW: number): HeatWorking {
  if (!heat.sink) {
    return {
      expression: 'air + watts × (junction to air − junction to case)',
      inputs: [
        computed('air', heat.airC, '°C'),
        simulated('watts in it', watts, 'W'),
        typical('junction to air', heat.chain[0]!.kPerW, 'K/W'),
        typical('junction to case', jcKPerW, 'K/W'),
      ],
    };
  }
  return {
    expression: `air + all watts on the sink × ${heat.sink.label}`,
    inputs: [
      computed('air at the sink', heat.airC, '°C'),
      simulated('all watts on the sink', heat.sink.watts, 'W'),
      typical(heat.sink.label, heat.sink.kPerW, 'K/W'),
    ],
  };
}

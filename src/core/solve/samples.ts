import type { Circuit } from '@/core/circuit/assemble';
import { mapped } from '@/core/quantity/lists';
import { emf, RUNNING_MAINS, type Mains } from './emf';
import type { Integrator } from './integrator';
import { columnsOf, mirrorRecords, sampledRecords, type Column } from './signals';
import type { Waveforms } from './solution';

/** One cycle of each rail in uniform samples, V, from records that begin with it: all an operating point needs of it. */
export function railSamples(circuit: Circuit, integrator: Integrator, perCycle: number): number[][] {
  const halves = readiedForHalves(circuit, integrator, perCycle);
  const sampled = sampledRecords(
    integrator,
    circuit.periodS / perCycle,
    0,
    halves ? circuit.periodS / 2 : circuit.periodS,
  );
  if (halves) mirrorRecords(circuit, sampled);
  const columns = columnsOf(integrator, 0, sampled.count, sampled);
  return mapped(circuit.rails, (_, r) => {
    const samples: number[] = [];
    appended(samples, columns.railV(r), sampled.count);
    return samples;
  });
}

/**
 * Readies records of half a cycle for so many samples of a whole one. An odd number has none where the halves meet: then the
 * records are mirrored themselves.
 * @returns whether the samples are to be taken of the half and mirrored
 */
export function readiedForHalves(circuit: Circuit, { records }: Integrator, perCycle: number): boolean {
  if (!circuit.mirror) return false;
  if (perCycle % 2 === 0) return true;
  mirrorRecords(circuit, records);
  return false;
}

function appended(to: number[], column: Column, count: number): void {
  const had = to.length;
  // At once as long as it gets: grown one by one it would be copied again and again.
  to.length = had + count;
  for (let n = 0; n < count; n++) to[had + n] = column[n]!;
}

/**
 * Uniform samples of everything a scope could show. What is the same in two places is one list.
 * @param mainsAt the mains at an instant: between two records the source is not told by them, as its sine bends
 */
export function sampler(circuit: Circuit, perCycle: number, mainsAt: (t: number) => Mains = () => RUNNING_MAINS) {
  const railV = mapped(circuit.rails, (): number[] => []);
  const portA = mapped(circuit.ports, (): number[] => []);
  const diodeA = Array.from({ length: circuit.diodes }, (): number[] => []);
  circuit.ports.forEach((port, n) => port.diodes.forEach((d) => (diodeA[d] = portA[n]!)));
  const waveforms: Waveforms = {
    t: [],
    sourceV: [],
    railV,
    inputV: mapped(circuit.rails, (rail, r) => (rail.inputNode === rail.outputNode ? railV[r]! : [])),
    windingA: mapped(circuit.windings, () => []),
    diodeA,
    elementV: mapped(circuit.rails, (r) => mapped(r.elements, () => [])),
    elementA: mapped(circuit.rails, (r) => mapped(r.elements, () => [])),
  };
  const step = circuit.periodS / perCycle;
  let next = 0;
  return {
    waveforms,
    /**
     * Takes the samples that fall into the records up to but not including `end`.
     * @param halves where the records end with half a period, and the other half is the same with roles exchanged
     */
    take(integrator: Integrator, end: number, halves: boolean) {
      const sampled = sampledRecords(integrator, step, next, end);
      if (halves) mirrorRecords(circuit, sampled);
      const taken = sampled.count;
      next += taken;
      const columns = columnsOf(integrator, 0, taken, sampled);
      const read = (into: number[], column: Column) => appended(into, column, taken);
      read(waveforms.t, columns.t);
      const sourceV = columns.blank();
      for (let n = 0; n < taken; n++) sourceV[n] = emf(circuit, mainsAt(columns.t[n]!), columns.t[n]!);
      read(waveforms.sourceV, sourceV);
      circuit.rails.forEach((rail, r) => {
        read(railV[r]!, columns.railV(r));
        if (rail.inputNode !== rail.outputNode) read(waveforms.inputV[r]!, columns.railInputV(r));
        rail.elements.forEach((element, k) => {
          read(waveforms.elementV[r]![k]!, columns.elementV(element));
          read(waveforms.elementA[r]![k]!, columns.elementA(element));
        });
      });
      waveforms.windingA.forEach((into, n) => read(into, columns.windingA(n)));
      circuit.ports.forEach((port, n) => {
        if (port.diodes.length === 0) return;
        if (port.law === 'open') for (let k = 0; k < taken; k++) portA[n]!.push(0);
        else read(portA[n]!, columns.portA(n));
      });
    },
  };
}

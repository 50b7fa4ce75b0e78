import { readdirSync, readFileSync } from 'node:fs';
import { assemble, type Circuit } from '@/core/circuit/assemble';
import { readCase } from '@/core/circuit/case-file';
import { readingOf } from '@/core/solve/read-records';
import type { Reading } from '@/core/solve/reading';
import { findCycle } from '@/core/solve/steady';

const CASES = readdirSync('tests/fixtures/cases')
  .filter((f) => f.endsWith('.json'))
  .map((f) => ({
    id: f.replace('.json', ''),
    ...readCase(JSON.parse(readFileSync(`tests/fixtures/cases/${f}`, 'utf8'))),
  }))
  .filter((c) => c.run.kind === 'steady');

/** All a reading tells of a circuit, by name. */
function told(reading: Reading, circuit: Circuit): Record<string, number> {
  const all: Record<string, number> = {};
  const put = (name: string, found: object | number) => {
    if (typeof found === 'number') all[name] = found;
    else for (const [key, value] of Object.entries(found)) all[`${name}.${key}`] = value as number;
  };
  put('primary', reading.primaryA());
  circuit.windings.forEach((_, n) => {
    put(`winding ${n}`, reading.windingA(n));
    put(`drawn ${n}`, reading.drawnW(n));
  });
  circuit.ports.forEach((port, n) => {
    put(`port ${n}`, reading.portA(n));
    if (port.diodes.length === 0 || port.law !== 'diode') return;
    put(`reverse ${n}`, reading.reverseV(n));
    put(`watts ${n}`, reading.portW(n));
    put(`conducts ${n}`, reading.conductionS(n, 0.01 * reading.portA(n).max));
  });
  circuit.elements.forEach((_, n) => {
    put(`element ${n} A`, reading.elementA(n));
    put(`element ${n} V`, reading.elementV(n));
  });
  circuit.rails.forEach((_, n) => {
    put(`rail ${n}`, reading.railV(n));
    put(`input ${n}`, reading.railInputV(n));
    put(`load ${n}`, reading.loadA(n));
    put(`load watts ${n}`, reading.loadW(n));
    put(`spread ${n}`, reading.spreadV2(n, reading.railV(n).mean));
  });
  return all;
}

/** What bends otherwise than a diode is run, and read, the general way. */
const PLAIN = CASES.filter((c) => assemble(c.network).ports.every((p) => p.law === 'diode' || p.law === 'open'));

test.each(PLAIN.map((c) => [c.id, c.network] as const))(
  '%s: the machine’s own code reads its records as the general way does',
  (_, network) => {
    const circuit = assemble(network);
    const { integrator } = findCycle(circuit);
    const plain = integrator.plainReading();
    const quick = told(plain!, circuit);
    const general = told(readingOf({ ...integrator, plainReading: () => null }), circuit);
    expect(Object.keys(quick)).toEqual(Object.keys(general));
    for (const [name, value] of Object.entries(general)) {
      // What a capacitor takes and gives is nothing in the mean: it counts against what flows.
      const scale = Math.max(Math.abs(value), Math.abs(general[name.replace(/\.mean$/, '.max')]!), 1e-9);
      expect({ name, off: Math.abs(quick[name]! - value) / scale < 1e-9 }).toEqual({ name, off: true });
    }
    integrator.release();
  },
);

test('a bridge into a reservoir: what is read obeys the laws of the parts it was read of', () => {
  const { network } = CASES.find((c) => c.id.startsWith('01-'))!;
  const circuit = assemble(network);
  const { integrator } = findCycle(circuit);
  const reading = readingOf(integrator);
  const half = circuit.periodS / 2;
  const load = reading.loadA(0);
  const can = reading.elementA(0);
  // Over a closed cycle a capacitor takes as much as it gives: all the load's current came through the diodes.
  expect(Math.abs(can.mean)).toBeLessThan(2e-4 * load.mean);
  const throughDiodes = circuit.ports.reduce((sum, p, n) => sum + (p.diodes.length > 0 ? reading.portA(n).mean : 0), 0);
  expect(throughDiodes / load.mean).toBeCloseTo(1, 3);
  // The spread is what the square of the mean leaves of the mean square.
  const rail = reading.railV(0);
  const share = (half / circuit.periodS) * 1;
  const meanV = rail.mean / share;
  expect(reading.spreadV2(0, meanV) / share).toBeCloseTo(rail.meanSquare / share - meanV ** 2, 6);
  // A constant load: watts are its amperes times the rail's mean.
  expect(reading.loadW(0) / (meanV * load.mean)).toBeCloseTo(1, 4);
  // A diode conducts for less than the half wave that drives it, and longer above a lower threshold.
  const conducts = circuit.ports.findIndex((p, n) => p.diodes.length > 0 && reading.portA(n).max > 0.1);
  const peakA = reading.portA(conducts).max;
  const tenth = reading.conductionS(conducts, 0.1 * peakA);
  const hundredth = reading.conductionS(conducts, 0.01 * peakA);
  expect(tenth).toBeGreaterThan(0.2 * hundredth);
  expect(hundredth).toBeGreaterThan(tenth);
  expect(hundredth).toBeLessThan(half);
  integrator.release();
});

import type { Integrator } from './integrator';
import { levelOf, ohmAround, type Reading, type Tally } from './reading';
import { columnsOf, largest, survey, timeAbove, type Column } from './signals';

/** Reads the records there are: by the machine's own code where they lie in its memory. */
export function readingOf(integrator: Integrator): Reading {
  return integrator.plainReading() ?? generalReading(integrator);
}

function generalReading(integrator: Integrator): Reading {
  const { circuit } = integrator;
  const columns = columnsOf(integrator);
  const { weight, count, emf } = columns;
  const T = circuit.periodS;
  const meanOfProduct = (a: Column, b: Column) => {
    let sum = 0;
    for (let r = 0; r < count; r++) sum += weight[r]! * a[r]! * b[r]!;
    return sum / T;
  };
  /** A node's volts are a capacitor's and a rail's at once: looked through once. */
  const looked: { column: Column; found: Tally }[] = [];
  const tally = (column: Column): Tally => {
    for (const one of looked) if (one.column === column) return one.found;
    const { sum, squares, max, min } = survey(columns, column);
    const found = { mean: sum / T, meanSquare: squares / T, max, min };
    looked.push({ column, found });
    return found;
  };
  return {
    windingA: (n) => tally(columns.windingA(n)),
    primaryA: () => tally(columns.primaryA()),
    portA: (n) => tally(columns.portA(n)),
    elementA: (n) => tally(columns.elementA(n)),
    elementV: (n) => tally(columns.elementV(n)),
    railV: (n) => tally(columns.railV(n)),
    railInputV: (n) => tally(columns.railInputV(n)),
    loadA: (n) => tally(columns.loadA(n)),
    reverseV: (n) => -largest(columns, columns.portV(n), -1).value,
    drawnW: (n) => meanOfProduct(emf, columns.windingA(n)),
    portW: (n) => meanOfProduct(columns.portA(n), columns.portV(n)),
    loadW: (n) => meanOfProduct(columns.railV(n), columns.loadA(n)),
    spreadV2(n, meanV) {
      const volts = columns.railV(n);
      let sum = 0;
      for (let r = 0; r < count; r++) sum += weight[r]! * (volts[r]! - meanV) ** 2;
      return sum / T;
    },
    conductionS(n, threshold) {
      const port = circuit.ports[n]!;
      const i = columns.portA(n);
      const smooth = columns.blank();
      if (port.law === 'resistor') {
        for (let r = 0; r < count; r++) smooth[r] = Math.abs(i[r]!);
        return timeAbove(columns, smooth, threshold);
      }
      const v = columns.portV(n);
      const ohm = ohmAround(circuit, port);
      for (let r = 0; r < count; r++) smooth[r] = v[r]! + ohm * i[r]!;
      return timeAbove(columns, smooth, levelOf(port, threshold, ohm));
    },
  };
}

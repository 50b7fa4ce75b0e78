import { assemble } from '@/core/circuit/assemble';
import { sameShape } from '@/core/solve/same-shape';
import { solveSteady } from '@/core/solve/steady';
import { amps, circuit, farad, henry, ohms } from './circuits';

const base = circuit('bridge', { rails: [{ filter: [farad(1e-3)], load: amps(0.5) }] });
const shape = (network: typeof base) => assemble(network);

describe('circuits of the same shape share what was set up for one of them', () => {
  test.each([
    ['other values', circuit('bridge', { volts: 40, ohm: 2, rails: [{ filter: [farad(9e-3, 0.2)], load: amps(2) }] })],
    [
      'another diode',
      circuit('bridge', {
        diode: { saturationCurrentA: 1e-7, emissionCoefficient: 1.1, seriesResistanceOhm: 0.01, temperatureC: 60 },
        rails: base.sections[0]!.rails,
      }),
    ],
  ])('%s: the same', (_, other) => {
    expect(sameShape(shape(base), shape(other))).toBe(true);
  });

  test.each([
    ['another arrangement', circuit('half-wave', { rails: base.sections[0]!.rails })],
    [
      'one part more',
      circuit('bridge', { rails: [{ filter: [farad(1e-3), henry(0.1), farad(1e-3)], load: amps(0.5) }] }),
    ],
    ['leakage inductance', circuit('bridge', { henry: 1e-4, rails: base.sections[0]!.rails })],
    ['a load of another kind', circuit('bridge', { rails: [{ filter: [farad(1e-3)], load: ohms(30) }] })],
    ['a faulted diode', circuit('bridge', { faults: [{ diode: 1, state: 'open' }], rails: base.sections[0]!.rails })],
    [
      'a choke that swings',
      circuit('bridge', {
        rails: [
          {
            filter: [{ kind: 'inductor', inductanceH: 1, resistanceOhm: 1, halfAtA: 0.2 }, farad(1e-3)],
            load: amps(0.5),
          },
        ],
      }),
    ],
  ])('%s: not the same', (_, other) => {
    expect(sameShape(shape(base), shape(other))).toBe(false);
    expect(sameShape(shape(other), shape(base))).toBe(false);
  });

  test('solving one after the other gives each its own answer, whatever came before', () => {
    const networks = [
      base,
      circuit('bridge', { volts: 40, rails: [{ filter: [farad(9e-3)], load: amps(2) }] }),
      circuit('bridge', { rails: [{ filter: [farad(1e-3)], load: ohms(30) }] }),
      circuit('bridge', { henry: 2e-4, rails: [{ filter: [farad(1e-3)], load: amps(0.5) }] }),
    ];
    const forward = networks.map((n) => solveSteady(n).rails[0]!.meanV);
    const backward = [...networks].reverse().map((n) => solveSteady(n).rails[0]!.meanV);
    expect(backward.reverse()).toEqual(forward);
  });
});

import { capacitanceAt, esrOf } from '@/core/circuit/filter-of';
import { CONDITIONS, type LoadLevel } from '@/core/circuit/condition';
import { loadsOf } from '@/core/circuit/loads-of';
import { mainsVolts, modelOf } from '@/core/circuit/feed';
import { networkOf } from '@/core/circuit/network-of';
import type { FilterCapacitor, Network } from '@/core/circuit/network';
import { applyPatch, type Design } from '@/core/design/design';
import { typicalEsr } from '@/core/parts/capacitor';
import { demoDesigns } from '@/core/design/demo-designs';
import { junctionOf } from './circuits';

const clock = demoDesigns()[0]!;
const dome = demoDesigns()[1]!;
const windingOf = (network: Network) => network.sections[0]!.winding;
const filterOf = (network: Network) => network.sections[0]!.rails[0]!.filter;
const reservoirOf = (network: Network) => filterOf(network)[0] as FilterCapacitor;

describe('mains', () => {
  test('low and high line stand apart by their own tolerances', () => {
    const uneven = applyPatch(clock, { mains: { lowPct: 13, highPct: 6 } });
    expect(mainsVolts(uneven, 'low')).toBeCloseTo(230 * 0.87, 9);
    expect(mainsVolts(uneven, 'nominal')).toBe(230);
    expect(mainsVolts(uneven, 'high')).toBeCloseTo(230 * 1.06, 9);
  });

  test('the winding follows the mains in proportion', () => {
    const open = modelOf(clock).openCircuitV;
    expect(open).toBeCloseTo(24 * 1.09, 9);
    expect(windingOf(networkOf(clock, CONDITIONS.high)).voltageRms).toBeCloseTo(open * 1.1, 9);
    expect(windingOf(networkOf(clock, CONDITIONS.low)).voltageRms).toBeCloseTo(open * 0.9, 9);
  });

  test('volts read at the outlet replace the tolerance', () => {
    expect(windingOf(networkOf(clock, CONDITIONS.nominal, { mainsV: 219 })).voltageRms).toBeCloseTo(
      (modelOf(clock).openCircuitV * 219) / 230,
      9,
    );
  });
});

describe('copper', () => {
  test('is warm where the load stays on and cold where it has not yet been', () => {
    const warm = networkOf(clock, CONDITIONS.low);
    const cold = networkOf(clock, CONDITIONS.surge);
    expect(windingOf(warm).resistanceOhm / windingOf(cold).resistanceOhm).toBeCloseTo((234.5 + 75) / 254.5, 9);
    expect(warm.mains.sharedResistanceOhm / cold.mains.sharedResistanceOhm).toBeCloseTo((234.5 + 75) / 254.5, 9);
  });

  test('half of it is the primary’s', () => {
    const network = networkOf(clock, CONDITIONS.nominal);
    const { resistanceOhm } = windingOf(network);
    const { sharedResistanceOhm } = network.mains;
    expect(resistanceOhm).toBeCloseTo(sharedResistanceOhm, 12);
    expect(resistanceOhm + sharedResistanceOhm).toBeCloseTo((24 * 0.09) / (100 / 24), 9);
  });
});

describe('reservoir', () => {
  test('shrinks by tolerance and by age before the valley is judged, and grows before the surge', () => {
    expect(capacitanceAt(clock, 'new')).toBe(6800e-6);
    expect(capacitanceAt(clock, 'aged')).toBeCloseTo(6800e-6 * 0.8 * 0.8, 12);
    expect(capacitanceAt(clock, 'large')).toBeCloseTo(6800e-6 * 1.2, 12);
  });

  test('doubles its ESR as it dries out', () => {
    const fresh = reservoirOf(networkOf(clock, CONDITIONS.nominal)).esrOhm;
    expect(fresh).toBeCloseTo(typicalEsr(6800e-6, 50), 12);
    expect(reservoirOf(networkOf(clock, CONDITIONS.low)).esrOhm).toBeCloseTo(2 * fresh, 12);
  });

  test('uses the ESR that was entered', () => {
    expect(esrOf(applyPatch(clock, { reservoir: { esrOhm: 0.011 } }))).toBe(0.011);
  });

  test('of nothing leaves the filter empty', () => {
    expect(filterOf(networkOf(applyPatch(dome, { reservoir: { capacitanceF: 0 } }), CONDITIONS.nominal))).toEqual([]);
  });
});

describe('load', () => {
  const kinds = (design: Design, load: LoadLevel) =>
    loadsOf(design, { ...CONDITIONS.nominal, load }).map((l) => l.kind);

  test('a regulator keeps its quiescent current when nothing is drawn from it', () => {
    const [idle] = loadsOf(clock, CONDITIONS.idle);
    expect(idle).toMatchObject({ kind: 'regulator', currentA: 0, quiescentA: 0.008, outputV: 24 });
  });

  test('without a regulator an idle reservoir has only its leakage', () => {
    expect(kinds(dome, 'none')).toEqual(['resistance']);
    expect(kinds(dome, 'full')).toEqual(['current', 'resistance']);
  });

  test('a resistance draws the asked current at the asked volts', () => {
    const [load] = loadsOf(applyPatch(dome, { demand: { kind: 'resistance' } }), CONDITIONS.nominal);
    expect(load).toEqual({ kind: 'resistance', resistanceOhm: 8 });
  });

  test('leakage is far below what any load draws', () => {
    const leak = loadsOf(dome, CONDITIONS.idle)[0]!;
    if (leak.kind !== 'resistance') throw new Error('leakage is a resistance');
    expect(dome.reservoir.ratedV / leak.resistanceOhm).toBeLessThan(0.005);
  });
});

test('spreads are applied on top of the condition', () => {
  const plain = networkOf(clock, CONDITIONS.nominal);
  const spread = networkOf(clock, CONDITIONS.nominal, {
    openCircuitFactor: 1.03,
    resistanceFactor: 0.8,
    capacitanceFactor: 0.9,
    diodeSaturationFactor: 3,
  });
  expect(windingOf(spread).voltageRms / windingOf(plain).voltageRms).toBeCloseTo(1.03, 12);
  expect(windingOf(spread).resistanceOhm / windingOf(plain).resistanceOhm).toBeCloseTo(0.8, 12);
  expect(reservoirOf(spread).capacitanceF / reservoirOf(plain).capacitanceF).toBeCloseTo(0.9, 12);
  const { law } = junctionOf(clock.rectifier.diode);
  expect(spread.sections[0]!.rectifier.diode).toEqual({ ...law, saturationCurrentA: 3 * law.saturationCurrentA });
});

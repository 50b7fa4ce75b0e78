import { plainWay } from '@/cli/plain-way';
import { applyPatch, type Design } from '@/core/design/design';
import { bulbsOf, heatersOf, rectifierSink } from '@/core/design/heaters';
import { otherDiodes } from '@/core/judge/cures';
import { pictureOf } from '@/core/judge/picture';
import { stationFigures } from '@/core/picture/station-figures';
import { lossesOf } from '@/core/study/losses';
import { judge } from '@/core/judge/judge';
import { mainsSide } from '@/core/mains-side/mains-side';
import { RULES } from '@/core/judge/rules';
import { JUNCTION_CLASSES, VALVE_CLASSES } from '@/core/parts/diode';
import type { RectifierKind } from '@/core/parts/arrangements';
import { solveSteady } from '@/core/solve/steady';
import { billOf } from '@/core/study/bill';
import { typicalCost } from '@/core/study/cost';
import { operatingPoint } from '@/core/study/operating-point';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';
import { amps, circuit, farad, SILICON } from './circuits';

const SOFT = { perveance: 7.7e-4 };

/** Current of a valve, a resistance and volts in series, found by halving: no formula of the solver's. */
function seriesA(volts: number, ohm: number, perveance: number): number {
  let low = 0;
  let high = volts / ohm;
  for (let round = 0; round < 100; round++) {
    const i = (low + high) / 2;
    if (i * ohm + (i / perveance) ** (2 / 3) > volts) high = i;
    else low = i;
  }
  return low;
}

describe('the three-halves law of a valve', () => {
  test.each([
    // Drop at 225 mA of one anode, V, as data sheets of the two kinds have it.
    ['valve-soft', 44],
    ['valve-stiff', 17],
  ])('%s drops %d V at 225 mA', (id, volts) => {
    const { law } = VALVE_CLASSES.find((v) => v.id === id)!;
    expect(law.perveance * volts ** 1.5).toBeCloseTo(0.225, 2);
  });

  test('into a resistor alone: mean and crest as found instant by instant', () => {
    const [volts, winding, load] = [200, 50, 1000];
    const solved = solveSteady(
      circuit('half-wave', {
        volts,
        ohm: winding,
        diode: SOFT,
        rails: [{ filter: [], load: [{ kind: 'resistance', resistanceOhm: load }] }],
      }),
    );
    let sum = 0;
    const points = 20000;
    for (let p = 0; p < points; p++) {
      const v = Math.SQRT2 * volts * Math.sin((2 * Math.PI * (p + 0.5)) / points);
      if (v > 0) sum += seriesA(v, winding + load, SOFT.perveance);
    }
    expect(solved.rails[0]!.meanV / ((load * sum) / points)).toBeCloseTo(1, 4);
    expect(solved.rails[0]!.maxV / (load * seriesA(Math.SQRT2 * volts, winding + load, SOFT.perveance))).toBeCloseTo(
      1,
      4,
    );
  });

  test.each<[RectifierKind, number]>([
    ['half-wave', 250],
    ['centre-tap', 250],
    ['bridge', 250],
    ['doubler', 120],
    ['split-bridge', 120],
  ])('%s: agrees with an independent nodal analysis of fine fixed steps', (kind, volts) => {
    const rail = { filter: [farad(16e-6, 1)], load: amps(0.08) };
    const network = circuit(kind, {
      volts,
      ohm: 120,
      diode: SOFT,
      rails: kind === 'split-bridge' ? [rail, rail] : [rail],
    });
    const solved = solveSteady(network);
    const plain = plainWay(network, 4000, 300);
    expect(plain.meanV / solved.rails[0]!.meanV).toBeCloseTo(1, 3);
    expect(plain.windingRmsA / solved.windings[0]!.rmsA).toBeCloseTo(1, 2);
  });

  test('power is kept: what leaves the winding is load, copper, valves and capacitor', () => {
    const solved = solveSteady(
      circuit('centre-tap', {
        volts: 300,
        ohm: 100,
        diode: SOFT,
        rails: [{ filter: [farad(20e-6, 2)], load: amps(0.1) }],
      }),
    );
    const valves = solved.diodes.reduce((sum, d) => sum + d.meanW, 0);
    // A pulse of five times the mean drops more than the mean current would.
    expect(valves).toBeGreaterThan(0.1 * (0.05 / SOFT.perveance) ** (2 / 3));
    expect(Math.abs(solved.energyBalance.relativeError)).toBeLessThan(1e-4);
  });

  test('through a choke it carries the current on and settles below the mean of a silicon one', () => {
    const through = (diode: typeof SILICON | typeof SOFT) =>
      solveSteady(
        circuit('centre-tap', {
          volts: 250,
          ohm: 60,
          diode,
          rails: [
            {
              filter: [{ kind: 'inductor', inductanceH: 10, resistanceOhm: 150 }, farad(32e-6)],
              load: amps(0.12),
            },
          ],
        }),
      ).rails[0]!.meanV;
    // With the current level at 120 mA the valve drops (0.12/K)^(2/3) = 29 V, the silicon diode 0.8 V.
    const apart = through(SILICON) - through(SOFT);
    expect(apart).toBeGreaterThan(0.95 * ((0.12 / SOFT.perveance) ** (2 / 3) - 0.8));
    expect(apart).toBeLessThan(1.15 * ((0.12 / SOFT.perveance) ** (2 / 3) - 0.8));
  });
});

describe('a design with a valve rectifier', () => {
  const receiver = (demoDesigns() as Design[]).find((d) => d.heater !== null)!;
  const valved = applyPatch(receiver, { rectifier: { diode: 'valve-stiff' } });

  test('its heater is a winding of its own, and bulbs are bought, not anodes', () => {
    expect(bulbsOf(valved)).toEqual([1]);
    expect(heatersOf(valved)).toEqual([receiver.heater, { ratedV: 5, currentA: 1.9 }]);
    const bill = billOf(studyDesign(valved));
    expect(bill.find((r) => r.what.startsWith('Stiff valve'))).toMatchObject({ count: 1, references: 'V1' });
    expect(bill.filter((r) => r.what.startsWith('Heater winding'))).toHaveLength(2);
  });

  test('in a bridge three cathodes stand at different volts: three windings and three bulbs', () => {
    const bridge = applyPatch(valved, { rectifier: { kind: 'bridge' } });
    expect([...bulbsOf(bridge)].sort()).toEqual([1, 1, 1]);
    expect(heatersOf(bridge)).toHaveLength(4);
    expect(bulbsOf(receiver)).toEqual([]);
    expect(typicalCost(bridge)).toBeGreaterThan(typicalCost(valved) + 40);
  });

  test('what heats it comes through the primary, and no heater is counted twice', () => {
    const of = (design: Design) =>
      mainsSide(studyDesign(design)).figures.find((f) => f.id === 'primary-running')!.value;
    const watts = 5 * 1.9;
    const more = of(valved) - of(receiver);
    const alone = watts / receiver.mains.voltageRms;
    // Under high mains and with the turns that make up for the copper it takes up to a quarter more than its plate says.
    expect(more).toBeGreaterThan(0.3 * alone);
    expect(more).toBeLessThan(1.25 * alone);
  });

  test('its bulb is as warm as heater and anodes make it, and fails above its glass', () => {
    const point = operatingPoint(valved, 'high');
    const each = Math.max(...point.solution.diodes.map((d) => d.meanW));
    const heat = judge(studyDesign(valved)).find((v) => v.id === 'rectifier-heat')!;
    expect(heat.title).toBe('Rectifier glass');
    // 9 K/W from 9.5 W of heater and two anodes, above the air of the box.
    expect(heat.figure.value).toBeGreaterThan(receiver.heat.ambientC + 9 * (9.5 + 2 * 0.8 * each));
    expect(RULES['rectifier-heat'].cures(valved).every((c) => !c.label.toLowerCase().includes('sink'))).toBe(true);
  });

  test('what it burns is one figure everywhere: embers, Heat and the loss of the station, its heater included', () => {
    const { picture, study } = pictureOf(valved);
    const { nominal } = study;
    const anodes = nominal.solution.diodes.reduce((sum, d) => sum + d.meanW, 0);
    // 5 V at 1.9 A are 9.5 W; turns that make up for the copper give it up to a fifth more.
    expect(nominal.watts.rectifier - anodes).toBeGreaterThan(9.4);
    expect(nominal.watts.rectifier - anodes).toBeLessThan(11.5);
    const shown = stationFigures(picture, 'rectifier', 'nominal').find((f) => f.id === 'diode-loss')!;
    expect(shown.value).toBe(nominal.watts.rectifier);
    expect(lossesOf(valved, nominal).rectifierW).toBe(nominal.watts.rectifier);
    // The load's own heaters are used, not lost.
    expect(nominal.watts.load).toBeGreaterThan(6.3 * 1.8);
    expect(nominal.watts.load).toBeLessThan(6.3 * 1.8 * 1.3 + 0.045 * 200);
  });

  test('a bulb takes no sink, whatever the design says of one', () => {
    const sinks = applyPatch(valved, { heat: { rectifierSinkKPerW: 2 } });
    expect(rectifierSink(sinks)).toBeNull();
    expect(typicalCost(sinks)).toBeCloseTo(typicalCost(valved), 9);
    expect(rectifierSink(applyPatch(receiver, { heat: { rectifierSinkKPerW: 2 } }))).toBe('own');
  });

  test('the anode’s peak is judged against its rating, and only a valve’s', () => {
    const find = (design: Design) => judge(studyDesign(design)).find((v) => v.id === 'anode-peak');
    expect(find(receiver)).toBeUndefined();
    expect(find(valved)!.state).toBe('holds');
    // A large first capacitor in place of the choke, and no copper to soften it.
    const hard = applyPatch(valved, {
      filter: { before: [] },
      reservoir: { capacitanceF: 220e-6 },
      transformer: { leakageH: 0, regulationPct: 3 },
      demand: { outputA: 0.12 },
    });
    const verdict = find(hard)!;
    expect(verdict.limit).toBe(0.75);
    expect(verdict.state).toBe(
      verdict.figure.value > 0.75 ? 'fails' : verdict.figure.value > 0.675 ? 'tight' : 'holds',
    );
    expect(verdict.figure.value).toBeGreaterThan(3 * find(valved)!.figure.value);
  });

  test('no cure puts a valve where none was; among valves both kinds are offered', () => {
    expect(otherDiodes(receiver)).toHaveLength(JUNCTION_CLASSES.length - 1);
    expect(otherDiodes(valved).some((e) => e.label.startsWith('Soft valve'))).toBe(true);
  });
});

import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { ofDiodeClass } from '@/core/design/diode-edit';
import type { RuleId } from '@/core/judge/rules';
import { DC_SOURCES } from '@/core/parts/dc-source';
import { clock, dome, logger as pole, physics as bench, tide } from './demos';

/**
 * Every rule at its limit from both sides: something a builder could change is turned until the figure stands at the
 * limit, and again until the wanted margin is just left. Limits and margins are worked out by hand from data sheets and
 * physics, never taken from the rule.
 */

export interface Row {
  id: RuleId;
  design: Design;
  /** What is turned, and between which values: `from` holds, `to` is beyond. */
  turn(x: number): Patch;
  from: number;
  to: number;
  /** By hand. */
  limit: number;
  wanted: number;
  relation?: 'at least';
  /** Beyond its limit it harms nothing. */
  caution?: true;
  /** The circumstance that decides at the limit, and the output. */
  at: string | null;
  output?: string | null;
  /** Where the turned value has to stand at the limit, where that can be said by hand: within a share. */
  where?: [number, number];
}

const amps = (outputA: number): Patch => ({ demand: { outputA } });
const winding = (ratedV: number): Patch => ({ transformer: { ratedV } });
const sink = (sinkKPerW: number): Patch => ({ heat: { sinkKPerW } });
const bare = applyPatch(clock, { heat: { box: 'open' } });
const adapter = DC_SOURCES.find((s) => s.id === 'regulated-12')!.source;
const fed = applyPatch(clock, {
  source: adapter,
  demand: { outputV: 5 },
  regulator: { kind: 'fixed', size: '78S', outputV: 5 },
});
const adjustable = (r1Ohm: number): Patch => ({
  regulator: { kind: 'adjustable', part: '317', r1Ohm, r2Ohm: 2200, potOhm: null, adjCapacitor: true },
});
const valved = applyPatch(tide, {
  rectifier: ofDiodeClass('valve-stiff'),
  filter: { before: [] },
  reservoir: { capacitanceF: 47e-6 },
  transformer: { leakageH: 0, regulationPct: 4 },
});
const tracking = (transistor: string): Patch => ({ preRegulator: { kind: 'tracking', aboveV: 4, transistor } });

const limited = (limitA: number): Patch => ({ regulator: { ...bench.regulator, limitA } as Design['regulator'] });

export const ROWS: Row[] = [
  // A 50 V can; 15 % kept.
  {
    id: 'reservoir-voltage',
    design: clock,
    turn: winding,
    from: 20,
    to: 40,
    limit: 50,
    wanted: 7.5,
    at: 'idle',
    output: 'main',
  },
  // Three amperes of ripple by its sheet; a tenth kept.
  {
    id: 'ripple-current',
    design: applyPatch(clock, { reservoir: { rippleA: 3 } }),
    turn: amps,
    from: 0.4,
    to: 4,
    limit: 3,
    wanted: 0.3,
    at: 'high',
    output: 'main',
  },
  // A bridge shares: each diode carries half of what is drawn, so 3 A each are about 6 A. A fifth kept.
  {
    id: 'diode-average',
    design: clock,
    turn: amps,
    from: 0.5,
    to: 9,
    limit: 3,
    wanted: 0.6,
    at: 'high',
    where: [6, 0.03],
  },
  // 400 V of the class; as much again as the figure is wanted for what the mains bring.
  {
    id: 'diode-reverse',
    design: clock,
    turn: winding,
    from: 20,
    to: 400,
    limit: 400,
    wanted: 400,
    at: 'idle',
    where: [400 / (1.1 * Math.SQRT2 * 1.098), 0.05],
  },
  {
    id: 'diode-surge',
    design: clock,
    turn: (ratedVA) => ({ transformer: { ratedVA } }),
    from: 40,
    to: 2000,
    limit: 200,
    wanted: 40,
    at: null,
  },
  // 200 A for half a cycle of 10 ms: 200² · 0.010/2 = 200 A²s.
  {
    id: 'surge-heating',
    design: applyPatch(clock, { transformer: { ratedVA: 300 } }),
    turn: (capacitanceF) => ({ reservoir: { capacitanceF } }),
    from: 1e-3,
    to: 0.8,
    limit: 200,
    wanted: 40,
    at: null,
  },
  {
    id: 'headroom',
    design: clock,
    turn: winding,
    from: 28,
    to: 18,
    limit: 0,
    wanted: 0.5,
    relation: 'at least',
    at: 'low',
    output: 'main',
  },
  {
    id: 'hold-up',
    design: clock,
    turn: (capacitanceF) => ({ reservoir: { capacitanceF } }),
    from: 10e-3,
    to: 0.5e-3,
    limit: 0,
    wanted: 0.5,
    relation: 'at least',
    caution: true,
    at: null,
    output: 'main',
  },
  // 4 V are allowed; a fifth kept. Ripple falls as capacitance grows.
  {
    id: 'output-ripple',
    design: dome,
    turn: (capacitanceF) => ({ reservoir: { capacitanceF } }),
    from: 40e-3,
    to: 4e-3,
    limit: 4,
    wanted: 0.8,
    at: 'highFull',
    output: 'main',
  },
  // ±30 % of 32 V; never more than one per cent is wanted.
  {
    id: 'output-window',
    design: dome,
    turn: (highPct) => ({ mains: { highPct } }),
    from: 2,
    to: 29,
    limit: 30,
    wanted: 1,
    at: 'idle',
    output: 'main',
  },
  // 7824: 40 V at most, a twentieth kept.
  {
    id: 'regulator-input',
    design: clock,
    turn: winding,
    from: 18,
    to: 30,
    limit: 40,
    wanted: 2,
    at: 'idle',
    output: 'main',
  },
  // 78S: 2 A, a tenth kept. What is asked for is what counts.
  {
    id: 'regulator-current',
    design: clock,
    turn: amps,
    from: 0.5,
    to: 3,
    limit: 2,
    wanted: 0.2,
    at: null,
    output: 'main',
    where: [2, 1e-3],
  },
  { id: 'junction', design: clock, turn: sink, from: 0.5, to: 12, limit: 125, wanted: 20, at: 'high', output: 'main' },
  // Silicon at 150 °C, 20 K kept.
  { id: 'rectifier-heat', design: bare, turn: amps, from: 0.5, to: 8, limit: 150, wanted: 20, at: 'high' },
  {
    id: 'winding-heat',
    design: dome,
    turn: (ambientC) => ({ heat: { ambientC } }),
    from: -20,
    to: 60,
    limit: 105,
    wanted: 10,
    at: 'high',
  },
  // 100 VA at 24 V are 4.1667 A, a tenth kept.
  {
    id: 'winding-current',
    design: clock,
    turn: amps,
    from: 0.4,
    to: 4,
    limit: 100 / 24,
    wanted: 100 / 240,
    at: 'high',
  },
  // Bare metal at 60 °C for a moment's touch.
  {
    id: 'sink-touch',
    design: clock,
    turn: sink,
    from: 0.5,
    to: 8,
    limit: 60,
    wanted: 10,
    caution: true,
    at: 'high',
    output: 'main',
  },
  // A TIP3055 dies at 150 °C, and limits nothing itself.
  {
    id: 'short-circuit',
    design: bench,
    turn: sink,
    from: 0.5,
    to: 8,
    limit: 150,
    wanted: 20,
    at: 'shorted:main',
    output: 'main',
  },
  {
    id: 'safe-area',
    design: bench,
    turn: limited,
    from: 0.5,
    to: 20,
    limit: 100,
    wanted: 20,
    at: 'shorted:main',
    output: 'main',
  },
  // 50 mV across each of three at 1.65 A: 0.05 · 3/1.65 = 91 mOhm.
  {
    id: 'pass-sharing',
    design: bench,
    turn: (emitterOhm) => ({ regulator: { ...bench.regulator, emitterOhm } as Design['regulator'] }),
    from: 0.4,
    to: 0.02,
    limit: 0.05,
    wanted: 0.05,
    relation: 'at least',
    at: null,
    output: 'main',
    where: [0.0909, 0.01],
  },
  // A small driver bears 1.2 W; three tenths kept.
  {
    id: 'small-heat',
    design: bench,
    turn: (gain) => ({ regulator: { ...bench.regulator, gain } as Design['regulator'] }),
    from: 400,
    to: 15,
    limit: 1.2,
    wanted: 0.36,
    at: 'lowest:main',
    output: 'main',
  },
  {
    id: 'inside-air',
    design: pole,
    turn: (ambientC) => ({ heat: { ambientC } }),
    from: 0,
    to: 70,
    limit: 70,
    wanted: 15,
    at: 'high',
  },
  {
    id: 'choke-rating',
    design: tide,
    turn: amps,
    from: 0.02,
    to: 0.12,
    limit: 0.08,
    wanted: 0.008,
    at: 'high',
    output: 'main',
  },
  // 15 H rings with C at 2/3 of 100 Hz where C = 1/((2π·66.7)²·15 H) = 380 nF; at half of it, 50 Hz, it is far enough.
  {
    id: 'filter-resonance',
    design: tide,
    turn: (capacitanceF) => ({ reservoir: { capacitanceF } }),
    from: 47e-6,
    to: 0.1e-6,
    limit: 200 / 3,
    wanted: 50 / 3,
    at: null,
    where: [0.38e-6, 0.02],
  },
  // The 400 V can is the weakest part; a tenth kept.
  { id: 'lost-load', design: tide, turn: winding, from: 180, to: 420, limit: 400, wanted: 40, at: null },
  {
    id: 'filter-voltage',
    design: applyPatch(clock, {
      filter: {
        after: [
          { kind: 'resistor', resistanceOhm: 0.5 },
          { kind: 'capacitor', capacitanceF: 1e-3, ratedV: 45 },
        ],
      },
    }),
    turn: winding,
    from: 18,
    to: 34,
    limit: 45,
    wanted: 6.75,
    at: 'idle',
    output: 'main',
  },
  // A half wave leaves its direct current in the core: 5 % of 100 VA/24 V.
  {
    id: 'winding-dc',
    design: applyPatch(clock, { rectifier: { kind: 'half-wave' } }),
    turn: amps,
    from: 0.02,
    to: 1,
    limit: 0.05 * (100 / 24),
    wanted: 0.015 * (100 / 24),
    at: 'highFull',
  },
  // The adapter cuts off at 2.4 A; 15 % kept. What flows is the load and a few milliamperes.
  {
    id: 'source-current',
    design: fed,
    turn: amps,
    from: 0.3,
    to: 3,
    limit: 2.4,
    wanted: 0.36,
    at: 'high',
    where: [2.39, 0.02],
  },
  // A typical 317 regulates from 3.5 mA, the worst from 10: 1.25 V over r1 draws 3.5 mA at 357 ohm.
  {
    id: 'minimum-load',
    design: clock,
    turn: adjustable,
    from: 60,
    to: 1000,
    limit: 0.0035,
    wanted: 0.0065,
    relation: 'at least',
    at: null,
    output: 'main',
    where: [1.25 / 0.0035, 0.01],
  },
  // 2 % of the top of 1.5 to 25 V: 0.5 V. With 120 ohm the top is reached with R2 = 120 · (24.5/1.25 − 1) = 2232 ohm.
  {
    id: 'output-range',
    design: applyPatch(clock, { demand: { range: { lowV: 1.5, highV: 25 } } }),
    turn: (potOhm) => ({
      regulator: { kind: 'adjustable', part: '317', r1Ohm: 120, r2Ohm: 10, potOhm, adjCapacitor: true },
    }),
    from: 2400,
    to: 1500,
    limit: 0.5,
    wanted: 0.5,
    at: null,
    output: 'main',
    where: [2222, 0.01],
  },
  // A stiff valve's anode stands 750 mA each cycle; a tenth kept.
  { id: 'anode-peak', design: valved, turn: amps, from: 0.01, to: 0.4, limit: 0.75, wanted: 0.075, at: 'highFull' },
  {
    id: 'pre-regulator',
    design: applyPatch(bench, tracking('tip3055')),
    turn: winding,
    from: 36,
    to: 22,
    limit: 0,
    wanted: 0.5,
    relation: 'at least',
    caution: true,
    at: 'low',
    output: 'main',
  },
  {
    id: 'pre-regulator-heat',
    design: applyPatch(bench, { ...tracking('tip3055'), demand: { outputA: 0.6 } }),
    turn: sink,
    from: 0.5,
    to: 10,
    limit: 150,
    wanted: 20,
    at: 'lowest:main',
    output: 'main',
  },
  {
    id: 'pre-regulator-area',
    design: applyPatch(bench, tracking('tip3055')),
    turn: limited,
    from: 0.2,
    to: 20,
    limit: 100,
    wanted: 15,
    at: 'shorted:main',
    output: 'main',
  },
];

import type { Design } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import type { Unknown } from '@/core/fit/belief';
import { foretell } from '@/core/fit/foretell';
import { posterior } from '@/core/fit/posterior';
import { CONDITIONS } from '@/core/circuit/condition';
import type { Figure } from '@/core/study/figure';
import { operatingPoint } from '@/core/study/operating-point';
import { BOX_S } from '@/core/study/time-constants';
import { readingSigma, type Measured } from './measured';
import { metalS } from './row-warmth';
import { mainsToday } from './readings';

/** What a run of the metal's temperature under full load comes to. */
export interface Soak {
  /** What it ends at, with its working. */
  final: Figure;
  /** Standard deviation of that, K. */
  sigmaK: number;
  /** What the heat page's chain says, °C. */
  chainC: number;
  /** Minutes until it is within a degree of its end. */
  thereMin: number;
  /** The fitted course, with its spread. */
  course: { minutes: number; value: number; sigma: number }[];
  /** How many exponentials were fitted: the metal, and the box around it where it is closed. */
  terms: 1 | 2;
}

/** Fewer and a curve goes through anything. */
const LEAST = 3;
/** What is believed before anything is read, as spreads of ln: rise by class and place, pace by a plate's mass, the room. */
const BELIEF = { rise: 0.45, pace: 0.6, roomK: 4, box: 0.8 };
/** A closed box adds about so much of the metal's own rise, slowly. */
const BOX_SHARE = 0.2;
/**
 * Fits one exponential to the warming of the metal, and a second, slow one where a closed box warms around it: told long
 * before it is there, with its spread.
 * @returns a sentence where too little was read
 * @throws SolveError where the design has no answer at the mains read
 */
export function soakOf(design: Design): Soak | string {
  const { bench, heat } = design;
  if (!mainModel(design)) return 'This supply has no regulator whose metal could be read.';
  if (bench.soak.length < LEAST)
    return 'Three temperatures or more are needed, the first soon after the full load is put on.';
  const { heat: warm } = operatingPoint(design, CONDITIONS.nominal, { mainsV: mainsToday(design) });
  const chainC = warm!.sinkC;
  const two = heat.box !== 'open';
  const rise = Math.max(1, chainC - heat.ambientC);
  const unknowns: Unknown[] = [
    { id: 'room', centre: heat.ambientC + KELVIN, spread: BELIEF.roomK / (heat.ambientC + KELVIN) },
    { id: 'rise', centre: two ? rise * (1 - BOX_SHARE) : rise, spread: BELIEF.rise },
    { id: 'pace', centre: metalS(design), spread: BELIEF.pace },
    ...(two
      ? [
          { id: 'box', centre: rise * BOX_SHARE, spread: BELIEF.box },
          { id: 'box pace', centre: BOX_S, spread: BELIEF.pace },
        ]
      : []),
  ];
  const at = (values: readonly number[], seconds: number) => {
    const [roomK, up, pace, boxUp = 0, boxPace = 1] = values as [number, number, number, number?, number?];
    return roomK - KELVIN + up * (1 - Math.exp(-seconds / pace)) + boxUp * (1 - Math.exp(-seconds / boxPace));
  };
  const readings = bench.soak.map(({ tempC }) => ({
    value: tempC,
    sigma: SHARED * readingSigma(design, 'sink', tempC),
  }));
  const times = bench.soak.map((r) => r.afterS);
  const found = posterior(unknowns, readings, (values) => times.map((t) => at(values, t)));
  const last = Math.max(...times);
  const [, up, pace, boxUp = 0, boxPace = 1] = found.values as [number, number, number, number?, number?];
  const thereS = Math.max(pace * Math.log(Math.max(1, up)), boxUp > 0 ? boxPace * Math.log(Math.max(1, boxUp)) : 0);
  const until = Math.max(last, thereS) * 1.1;
  const grid = Array.from({ length: 41 }, (_, n) => (until * n) / 40);
  const told = foretell(unknowns, found, (values) => [...grid.map((t) => at(values, t)), at(values, Infinity)]);
  const end = told.at(-1)!;
  // A thermometer is off by the same in every reading: that does not average away.
  const sigmaK = Math.hypot(end.sigma, readingSigma(design, 'sink', end.value));
  return {
    final: {
      id: 'soak-final',
      label: 'Metal in the end',
      value: end.value,
      unit: '°C',
      origin: 'measured',
      expression: two
        ? 'room + rise of the metal + rise of the box’s air, two exponentials through the readings'
        : 'room + rise, one exponential through the readings',
      inputs: [
        { label: 'room', value: found.values[0]! - KELVIN, unit: '°C', origin: 'measured' },
        { label: 'rise', value: up, unit: 'K', origin: 'measured' },
        { label: 'time constant', value: pace, unit: 's', origin: 'measured' },
        ...(two
          ? [
              { label: 'box adds', value: boxUp, unit: 'K' as const, origin: 'measured' as const },
              { label: 'its time constant', value: boxPace, unit: 's' as const, origin: 'measured' as const },
            ]
          : []),
      ],
      source:
        'Most probable course given readings and what a sink of this resistance does; spread from their covariance.',
      assumes: [
        `The thermometer’s own error is the same all along. The heat page’s chain says ${chainC.toFixed(0)} °C.`,
      ],
      estimate: { label: 'heat page', value: chainC, expression: 'the chain from junction to room, steady' },
    },
    sigmaK,
    chainC,
    thereMin: thereS / 60,
    course: grid.map((t, n) => ({ minutes: t / 60, ...told[n]! })),
    terms: two ? 2 : 1,
  };
}

/** Temperatures are fitted from nothing at all, so that a room near 0 °C is a number like any other. */
const KELVIN = 273.15;
/** So much of a thermometer's error changes from reading to reading; the rest is the same all along. */
const SHARED = 0.3;

/**
 * A soak as a reading of the metal: its rise over the room it was read in, put on the room the design assumes.
 * @throws SolveError where the design has no answer at the mains read
 */
export function soakReading(design: Design): Measured[] {
  const soak = soakOf(design);
  if (typeof soak === 'string') return [];
  const roomC = soak.final.inputs[0]!.value;
  return [
    {
      id: 'soak',
      label: 'metal in the end, by its soak',
      quantity: 'sink',
      unit: '°C',
      state: { mainsV: mainsToday(design), load: design.demand.outputA },
      value: design.heat.ambientC + soak.final.value - roomC,
      sigma: soak.sigmaK,
    },
  ];
}

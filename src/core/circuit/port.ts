import { mapped } from '@/core/quantity/lists';
import { type DiodeFault, type Section } from './network';

const BOLTZMANN_J_PER_K = 1.380649e-23;
const ELEMENTARY_CHARGE_C = 1.602176634e-19;

/** What stands in for a shorted diode, ohm. */
export const SHORTED_OHM = 0.005;
/** A filter input a path passes through, and whether its current charges it or draws from it. */
export interface PortInput {
  input: number;
  sign: 1 | -1;
}

/**
 * A nonlinear branch seen as a loop: v = share*v(winding) - sum of sign*V(input) + floatSign*V(float), and the current it
 * carries adds share*i to the winding and sign*i to each input.
 */
export interface Port extends Joined, Path {}

/** Where a port is joined to the rest. */
interface Joined {
  winding: number;
  share: number;
  /** The filter inputs it passes through, the one it charges first; none when the path closes over ground. */
  into: readonly PortInput[];
  /** The one filter input it charges where it passes through no other, else -1. */
  input: number;
  /** Index of the floating potential it sees, -1 for none. */
  floating: number;
  floatSign: number;
}

/** What lies in a port's way, and its law. */
interface Path {
  law: 'diode' | 'valve' | 'resistor' | 'open';
  /** n*Vt of all diodes in the path, V; nothing of a valve. */
  thetaV: number;
  saturationA: number;
  /** Of all valves in the path as if they were one, A/V^1.5; nothing of a junction. */
  perveance: number;
  /** Rs of all diodes in the path, or the resistance of a 'resistor', ohm. */
  ohm: number;
  /** Which diodes (numbered through the whole network) it stands for, all alike in series. */
  diodes: number[];
  /** Diodes of the same path that have shorted, each a resistor in series with those that have not. */
  shorted: number[];
}

/** A port, field by field in one order: what every solve reads is then laid out alike everywhere. */
export function portOf(joined: Joined, path: Path): Port {
  const { winding, share, into, input, floating, floatSign } = joined;
  const { law, thetaV, saturationA, perveance, ohm, diodes, shorted } = path;
  return {
    winding,
    share,
    into,
    input,
    floating,
    floatSign,
    law,
    thetaV,
    saturationA,
    perveance,
    ohm,
    diodes,
    shorted,
  };
}

/** A path without diodes. */
export function resistorPath(ohm: number): Path {
  return { law: 'resistor', thetaV: 0, saturationA: 0, perveance: 0, ohm, diodes: [], shorted: [] };
}

/** Whether a port lets current through one way only. */
export function rectifies({ law }: Port): boolean {
  return law === 'diode' || law === 'valve';
}

/** Volts across the rectifying parts of a port at a current above nothing, their series resistance aside. */
export function dropV({ law, perveance, thetaV, saturationA }: Port, amps: number): number {
  return law === 'valve' ? (amps / perveance) ** (2 / 3) : thetaV * Math.log1p(amps / saturationA);
}

/** The law of a path through diodes. @param diodes of the section, `offset` the first one's number in the network */
export function pathThrough(
  section: Section,
  faults: readonly DiodeFault[],
  diodes: readonly number[],
  offset: number,
): Path {
  const { diode } = section.rectifier;
  const state = (d: number) => faults.find((f) => f.diode === d)?.state;
  const sound = faults.length === 0 ? diodes : diodes.filter((d) => state(d) !== 'short');
  const short = faults.length === 0 ? [] : diodes.filter((d) => state(d) === 'short');
  const open = diodes.some((d) => state(d) === 'open');
  const numbered = (list: readonly number[]) => mapped(list, (d) => offset + d);
  const all = !open && sound.length === 0;
  const inSeries = Math.max(1, sound.length);
  const valve = 'perveance' in diode;
  const eachOhm = valve ? 0 : diode.seriesResistanceOhm;
  return {
    law: open ? 'open' : all ? 'resistor' : valve ? 'valve' : 'diode',
    thetaV: valve
      ? 0
      : (inSeries * diode.emissionCoefficient * BOLTZMANN_J_PER_K * (diode.temperatureC + 273.15)) /
        ELEMENTARY_CHARGE_C,
    saturationA: valve ? 0 : diode.saturationCurrentA,
    perveance: valve ? diode.perveance / inSeries ** 1.5 : 0,
    ohm: sound.length * eachOhm + short.length * SHORTED_OHM,
    diodes: numbered(all || open ? diodes : sound),
    shorted: numbered(all || open ? [] : short),
  };
}

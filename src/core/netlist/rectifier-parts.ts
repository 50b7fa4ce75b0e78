import type { Design } from '@/core/design/design';
import { arrangementFacts, arrangementOf, hasDiodes } from '@/core/design/source';
import { diodeOf } from '@/core/parts/diode';
import { formatNominal } from '@/core/quantity/format';
import type { NetlistBuilder } from './builder';
import { canParts } from './can-parts';
import { GROUND, RAW } from './netlist';

/** Diodes, and of a multiplier its own capacitors. @param ends the winding's ends, by the arrangement's names */
export function rectifierParts(design: Design, ends: ReadonlyMap<string, string>, b: NetlistBuilder): void {
  const arrangement = arrangementOf(design);
  const { joints, cells } = arrangement;
  const { ownCans, bridges } = arrangementFacts(design);
  const place = { block: 'rectifier', rail: null } as const;
  b.net(RAW[0], 'charging', 0);
  if (arrangement.rails === 2) b.net(RAW[1], 'charging', 1);
  const netOf = (joint: string): string => {
    if (joint === 'P') return RAW[0];
    if (joint === 'N') return RAW[1];
    return ends.get(joint) ?? (joint === 'G' ? GROUND : b.net(`between, ${joint.toLowerCase()}`, 'charging'));
  };
  const diode = diodeOf(design.rectifier);
  const rectifying = {
    // Its number where it has one: what it bears stands beside it anyway.
    value: /\(([^)]+)\)/.exec(diode.name)?.[1] ?? `${diode.technology}${diode.housing === 'block' ? ' bridge' : ''}`,
    rating: `${formatNominal(diode.averageA, 'A')} ${formatNominal(diode.reverseV, 'V')}`,
    what: 'rectifies',
    line: 'rectifier',
  };
  if (hasDiodes(design)) {
    const nets = joints.diodes.map(([anode, cathode]) => ({ anode: netOf(anode), cathode: netOf(cathode) }));
    if (diode.technology === 'valve')
      for (const pins of bulbs(nets)) b.add({ kind: 'valve', ...rectifying, pins }, place);
    else if (diode.housing === 'block' && bridges > 0)
      for (let n = 0; n < nets.length; n += 4)
        b.add({ kind: 'bridge', ...rectifying, pins: bridgePins(nets.slice(n, n + 4)) }, place);
    else for (const pins of nets) b.add({ kind: 'diode', ...rectifying, pins }, place);
  }
  cells.forEach((cell, n) => {
    // Where every can is one of the arrangement's own, those of the rails are among them.
    if (cell.at === 'rail' && !ownCans) return;
    const [plus, minus] = joints.cells[n]!;
    canParts(design, netOf(plus), netOf(minus), { ...place, rail: cell.at === 'pump' ? null : 0 }, b, `can ${n + 1}`);
  });
}

interface DiodeNets {
  anode: string;
  cathode: string;
}

/** Four diodes in one block: plus where two cathodes meet, minus where two anodes do. */
function bridgePins(four: readonly DiodeNets[]): Record<string, string> {
  const twice = (end: keyof DiodeNets) => four.find((d, n) => four.some((o, m) => m !== n && o[end] === d[end]))![end];
  const plus = twice('cathode');
  const [first, second] = four.filter((d) => d.cathode === plus).map((d) => d.anode);
  return { 'AC 1': first!, 'AC 2': second!, plus, minus: twice('anode') };
}

/** Two anodes about one cathode make a bulb. */
function bulbs(diodes: readonly DiodeNets[]): Record<string, string>[] {
  return [...new Set(diodes.map((d) => d.cathode))].flatMap((cathode) => {
    const anodes = diodes.filter((d) => d.cathode === cathode).map((d) => d.anode);
    return Array.from({ length: Math.ceil(anodes.length / 2) }, (_, n) => {
      const [one, two] = anodes.slice(2 * n, 2 * n + 2);
      return { 'anode 1': one!, ...(two === undefined ? {} : { 'anode 2': two }), cathode };
    });
  });
}

import type { Design } from '@/core/design/design';
import { bulbsOf, heatersOf } from '@/core/design/heaters';
import { arrangementOf, dcSourceOf, hasDiodes } from '@/core/design/source';
import { sourceWords } from '@/core/design/words';
import { formatNominal } from '@/core/quantity/format';
import type { NetlistBuilder } from './builder';
import { GROUND, RAW } from './netlist';

const MAINS = { block: 'mains', rail: null } as const;
const CORE = { block: 'transformer', rail: null } as const;
const RECTIFIER = { block: 'rectifier', rail: null } as const;

/**
 * Everything ahead of the rectifier.
 * @returns the net each winding's ends come out at, behind its fuse where it has one
 */
export function sourceParts(design: Design, b: NetlistBuilder): Map<string, string> {
  return dcSourceOf(design) ? dcParts(design, b) : mainsParts(design, b);
}

function mainsParts(design: Design, b: NetlistBuilder): Map<string, string> {
  const { mainsSide: side, transformer } = design;
  const primary = transformer.sealed ? null : primaryParts(design, b);
  const { windings } = arrangementOf(design).joints;
  const ends = windingNets(windings);
  const fused = side.secondaryFuseA !== null;
  const own = (net: string) => (fused ? b.net(`${net} at the winding`, 'winding') : net);
  const heaters = heatersOf(design);
  const pinsOf = windings.map(([first, last]) => {
    // The fuse stands at the end that is not common to all.
    const outer = first === 'G' ? last : first;
    const net = (end: string) => (end === outer ? own(ends.get(end)!) : ends.get(end)!);
    return [net(first), net(last)] as const;
  });
  for (const net of ends.values()) if (net !== GROUND) b.net(net, 'winding');
  b.add(
    {
      kind: primary ? 'transformer' : 'source',
      value: `${windings.length === 2 ? '2 × ' : ''}${formatNominal(transformer.ratedV, 'V')}`,
      rating: formatNominal(transformer.ratedVA, 'VA'),
      what: primary ? 'transformer' : 'bought AC adapter: the mains stays inside it',
      pins: {
        ...(primary ? { 'primary L': primary.live, 'primary N': primary.neutral } : {}),
        ...Object.fromEntries(
          pinsOf.flatMap(([a, z], n) => [
            [`winding ${n + 1}, start`, a],
            [`winding ${n + 1}, end`, z],
          ]),
        ),
        ...Object.fromEntries(
          heaters.flatMap((_, n) => [
            [`heater ${n + 1} a`, b.net(`heater ${n + 1} a`, 'winding')],
            [`heater ${n + 1} b`, b.net(`heater ${n + 1} b`, 'winding')],
          ]),
        ),
      },
      line: 'transformer',
    },
    CORE,
  );
  if (fused)
    windings.forEach(([first, last]) => {
      const outer = ends.get(first === 'G' ? last : first)!;
      b.add(
        {
          kind: 'fuse',
          value: formatNominal(side.secondaryFuseA!, 'A'),
          what: 'fuse of the winding',
          pins: { a: own(outer), b: outer },
          line: 'secondary-fuse',
        },
        RECTIFIER,
      );
    });
  const bulbs = bulbsOf(design);
  heaters.forEach(({ ratedV, currentA }, n) => {
    const place = n - (design.heater ? 1 : 0);
    b.add(
      {
        kind: 'heater',
        value: `${formatNominal(ratedV, 'V')} ${formatNominal(currentA, 'A')}`,
        what:
          place < 0 ? 'the load’s heaters' : `heats the rectifier${bulbs.length > 1 ? `, cathode ${place + 1}` : ''}`,
        pins: { a: `heater ${n + 1} a`, b: `heater ${n + 1} b` },
        line: `heater-${n}`,
      },
      CORE,
    );
  });
  return ends;
}

/** Inlet, fuse, switch and cut-out. @returns what the primary is joined to */
function primaryParts({ mainsSide: side, mains, build }: Design, b: NetlistBuilder): { live: string; neutral: string } {
  const earthed = side.insulation === 'class I';
  let live = b.net('L', 'mains');
  let neutral = b.net('N', 'mains');
  if (earthed) b.net('PE', 'earth');
  b.add(
    {
      kind: 'inlet',
      value: `${formatNominal(mains.voltageRms, 'V')} ${formatNominal(mains.frequencyHz, 'Hz')}`,
      what: 'mains inlet',
      pins: { L: live, N: neutral, ...(earthed ? { PE: 'PE' } : {}) },
      line: 'inlet',
    },
    MAINS,
  );
  const series = (kind: 'fuse' | 'cutout', value: string, what: string, line: string, to: string) => {
    const soldered = kind === 'fuse' && build.board.mains && build.board.kind !== 'strips';
    b.add({ kind, value, rating: '250 V', what, pins: { a: live, b: b.net(to, 'mains') }, line, soldered }, MAINS);
    live = to;
  };
  if (side.primaryFuseA !== null)
    series('fuse', `T ${formatNominal(side.primaryFuseA, 'A')}`, 'primary fuse, time-lag', 'primary-fuse', 'L fused');
  const both = side.switchPoles === 2;
  const pins = { a1: live, b1: b.net('L switched', 'mains') };
  b.add(
    {
      kind: 'switch',
      value: both ? 'two poles' : 'one pole',
      rating: '250 V',
      what: 'mains switch',
      pins: both ? { ...pins, a2: neutral, b2: b.net('N switched', 'mains') } : pins,
      line: 'switch',
    },
    MAINS,
  );
  live = 'L switched';
  if (both) neutral = 'N switched';
  if (side.thermalCutout)
    series('cutout', 'thermal', 'opens when the transformer is too hot', 'cutout', 'L to primary');
  return { live, neutral };
}

function dcParts(design: Design, b: NetlistBuilder): Map<string, string> {
  const fuseA = design.mainsSide.secondaryFuseA;
  // Without a diode against swapped leads the rail begins where the source, or its fuse, ends.
  const first = hasDiodes(design) ? null : b.net(RAW[0], 'charging', 0);
  const plus = fuseA === null && first ? first : b.net('source +', 'winding');
  const behind = fuseA === null ? plus : (first ?? b.net('source + fused', 'winding'));
  b.add(
    {
      kind: 'source',
      value: sourceWords(design),
      what: design.source.kind === 'battery' ? 'battery' : 'bought adapter',
      pins: { plus, minus: b.net(GROUND, 'ground') },
      line: 'source',
    },
    MAINS,
  );
  if (fuseA !== null)
    b.add(
      {
        kind: 'fuse',
        value: formatNominal(fuseA, 'A'),
        what: 'fuse in the lead',
        pins: { a: plus, b: behind },
        line: 'secondary-fuse',
      },
      RECTIFIER,
    );
  return new Map([
    ['A', behind],
    ['G', GROUND],
  ]);
}

/** What the ends of the windings are called outside: ground is ground, the others are numbered as they come. */
function windingNets(windings: readonly (readonly [string, string])[]): Map<string, string> {
  const nets = new Map<string, string>();
  let named = 0;
  for (const end of windings.flat()) if (!nets.has(end)) nets.set(end, end === 'G' ? GROUND : `AC ${++named}`);
  return nets;
}

import type { Design, Enclosure } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import { partsIn } from '@/core/drawer/fit';
import { sinksOf } from '@/core/design/sinks';
import type { Netlist, NetPart } from '@/core/netlist/netlist';
import { referencesOf } from '@/core/netlist/references';
import { formatNominal } from '@/core/quantity/format';
import type { Block } from './block';
import { canOf, offBoard, rated } from '@/core/build/off-board';
import { aboutBoard } from './board-size';
import { FIN_AIR_MM } from './rules';
import {
  chokeSize,
  PANEL_PARTS,
  POSTS_APART_MM,
  sinkSize,
  transformerSize,
  type PanelPart,
  type Size,
} from '@/core/parts/footprints';

const STAND_OFF_MM = 10;
/** A valve in its socket: diameter and height, mm; typical. */
const VALVE_MM = { wMm: 32, dMm: 32, hMm: 95 };

/**
 * Everything that takes up room in the box of a design, from its netlist and what the person measured or added.
 * @param outline of its board as it is laid out, mm; by rule of thumb where it is not
 */
export function blocksOf(
  design: Design,
  netlist: Netlist,
  outline: { wMm: number; dMm: number } | null = null,
): Block[] {
  const { box } = design.build;
  const blocks: Block[] = [];
  const onBoard: NetPart[] = [];
  /** Height of what came out of the drawer and was written down there, mm. */
  const ownHeight = (role: PartRole) => partsIn(design).find((p) => p.role === role)?.heightMm ?? null;
  const reservoirMm = ({ line }: NetPart) => (line === 'reservoir' ? ownHeight('reservoir') : null);
  const netsOn = new Map(netlist.parts.map((p) => [p.ref, p.pins.map((pin) => pin.net)]));
  const add = (block: Partial<Block> & Pick<Block, 'id' | 'label' | 'what' | 'size'>) =>
    blocks.push(plainBlock({ nets: netsOn.get(block.id) ?? [], ...block }));
  const panel = (
    part: NetPart,
    { hole, face, behindMm }: PanelPart,
    where: 'front' | 'rear',
    more: Partial<Block> = {},
  ) =>
    add({
      id: part.ref,
      label: part.ref,
      what: `${part.what}${part.value ? `, ${part.value}` : ''}`,
      size: { wMm: face.wMm, dMm: behindMm, hMm: face.hMm },
      face: where,
      may: ['front', 'rear'],
      hole,
      labels: [part.value],
      ...more,
    });
  for (const part of netlist.parts) {
    const { kind, ref } = part;
    if (!offBoard(part)) {
      onBoard.push(part);
      continue;
    }
    if (kind === 'inlet') panel(part, PANEL_PARTS.inlet, 'rear', { carries: 'mains' });
    else if (kind === 'fuse')
      panel(part, PANEL_PARTS['fuse holder'], 'rear', { carries: 'mains', near: near(netlist, 'inlet') });
    else if (kind === 'switch')
      panel(part, PANEL_PARTS[part.pins.length > 2 ? 'switch, two poles' : 'switch, one pole'], 'rear', {
        carries: 'mains',
        labels: ['I · 0'],
        near: near(netlist, 'inlet'),
      });
    else if (kind === 'transformer')
      add({
        id: ref,
        label: ref,
        what: `transformer, ${part.value}, ${part.rating}`,
        size: transformerSize(design.transformer.ratedVA, box.core),
        round: box.core === 'ring',
        screws: box.core === 'ring' ? { count: 1, diameterMm: 6.5, insetMm: 0 } : LAMINATED_SCREWS,
        carries: 'both',
        fieldVA: design.transformer.ratedVA,
        near: [...near(netlist, 'switch'), 'board'],
      });
    // A bought adapter or a battery stays outside: its lead comes in by a jack.
    else if (kind === 'source') panel(part, PANEL_PARTS.jack, 'rear', { what: `jack of the ${part.what}` });
    else if (kind === 'choke')
      add({
        id: ref,
        label: ref,
        what: `${part.what}, ${part.value}`,
        size: chokeSize(part.si!.value, rated(part, 'A') ?? 1),
        screws: LAMINATED_SCREWS,
        origin: 'rule of thumb',
        near: ['board'],
      });
    else if (kind === 'valve')
      add({
        id: ref,
        label: ref,
        what: part.what,
        size: VALVE_MM,
        round: true,
        hot: true,
        screws: { count: 2, diameterMm: 3.2, insetMm: 4 },
        near: ['board'],
      });
    else if (kind === 'led') panel(part, PANEL_PARTS.lamp, 'front', { labels: ['on'], near: ['board'] });
    else if (kind === 'pot') panel(part, PANEL_PARTS.pot, 'front', { labels: ['volts'], near: ['board'] });
    else if (kind === 'fan') panel(part, PANEL_PARTS.fan, 'rear', { near: ['H1'] });
    else if (kind === 'terminal') {
      const { hole, face, behindMm } = PANEL_PARTS.post;
      const count = part.pins.length;
      panel(part, { hole, behindMm, face: { wMm: face.wMm + (count - 1) * POSTS_APART_MM, hMm: face.hMm } }, 'front', {
        holes: { count, apartMm: POSTS_APART_MM },
        labels: part.pins.map((p) => (p.name === '0 V' ? '0 V' : part.value)),
        near: ['board'],
      });
    } else if (kind === 'electrolytic') {
      const { diameterMm, hMm: typicalMm } = canOf(part)!;
      const known = reservoirMm(part);
      add({
        id: ref,
        label: ref,
        what: `${part.value} ${part.rating}`,
        size: { wMm: diameterMm, dMm: diameterMm, hMm: known ?? typicalMm },
        ...(known === null ? {} : { origin: 'drawer' }),
        round: true,
        can: true,
        // A clamp around it.
        screws: { count: 2, diameterMm: 3.2, insetMm: -5 },
        near: ['board'],
      });
    }
    // What is left takes no room of its own: a heater is its valve's, a cut-out lies on the transformer's winding.
  }
  for (const { ref, kPerW, of, what } of sinksOf(design)) {
    const sinkMm = of === 'main' ? ownHeight('sink') : null;
    const outside = design.heat.sinkOutside && design.heat.box !== 'open' && of !== 'rectifier';
    add({
      id: ref,
      label: ref,
      what: `heatsink of ${what}, ${formatNominal(kPerW, 'K/W')}`,
      size: sinkSize(kPerW, sinkMm),
      origin: sinkMm === null ? 'rule of thumb' : 'drawer',
      face: outside ? 'rear' : 'floor',
      may: outside ? ['rear'] : ['floor'],
      hot: true,
      fins: true,
      screws: { count: 2, diameterMm: 3.2, insetMm: 8 },
      outside,
      standOffMm: outside ? 0 : FIN_AIR_MM,
      near: ['board'],
    });
  }
  if (onBoard.length > 0)
    add({
      id: 'board',
      label: 'board',
      what: `board with ${referencesOf(onBoard)}`,
      nets: [...new Set(onBoard.flatMap((p) => netsOn.get(p.ref)!))],
      size: { ...aboutBoard(onBoard, reservoirMm), ...outline },
      origin: outline ? 'typical' : 'rule of thumb',
      carries: onBoard.some((p) => p.soldered) ? 'both' : 'low',
      can: onBoard.some((p) => p.kind === 'electrolytic'),
      standOffMm: STAND_OFF_MM,
      screws: { count: 4, diameterMm: 3.2, insetMm: 4 },
      near: netlist.parts.filter((p) => p.kind === 'terminal').map((p) => p.ref),
    });
  for (const { id, name, face, carries, ...size } of box.own)
    add({
      id,
      label: name,
      what: name,
      size,
      face,
      may: ['floor', 'front', 'rear'],
      // Wherever it goes: what stands on the floor wants none.
      hole: { shape: 'slot', wMm: size.wMm, hMm: size.hMm, screws: null },
      carries,
      origin: 'measured',
    });
  return blocks.map((b) => measured(b, box));
}

/** A block that is nothing in particular: on the floor, of low volts, neither hot nor minding heat. */
export const plainBlock = (block: Partial<Block> & Pick<Block, 'id' | 'label' | 'what' | 'size'>): Block => ({
  face: 'floor',
  may: ['floor'],
  round: false,
  origin: 'typical',
  hole: null,
  holes: { count: 1, apartMm: 0 },
  carries: 'low',
  hot: false,
  can: false,
  fieldVA: null,
  fins: false,
  outside: false,
  standOffMm: 0,
  screws: { count: 0, diameterMm: 3.2, insetMm: 4 },
  labels: [],
  nets: [],
  near: [],
  ...block,
});

/** A block by the size read off the part in hand, where there is one. */
function measured(block: Block, { sizes }: Enclosure): Block {
  const own = sizes.find((s) => s.block === block.id);
  if (!own) return block;
  const size: Size = { wMm: own.wMm, dMm: own.dMm, hMm: own.hMm };
  return { ...block, size, origin: 'measured', round: block.round && size.wMm === size.dMm };
}

const near = ({ parts }: Netlist, kind: NetPart['kind']) => parts.filter((p) => p.kind === kind).map((p) => p.ref);

const LAMINATED_SCREWS = { count: 4, diameterMm: 4.3, insetMm: 6 } as const;

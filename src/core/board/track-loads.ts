import { rmsFigure, type Flow } from '@/core/build/flows';
import type { Netlist } from '@/core/netlist/netlist';
import { formatQuantity } from '@/core/quantity/format';
import type { Figure } from '@/core/study/figure';
import { branchFlow } from './branches';
import { RISE_K, trackRiseK, trackWidthMm } from './copper-rules';
import type { Branch, EtchedBoard } from './etched';
import { isOn } from './route-ground';

/** What flows on a part of a net, how wide its copper is, and how warm that gets. */
export interface TrackLoad {
  net: string;
  carries: Branch['carries'];
  flows: Figure;
  /** At most so much over the board's own warmth, K. */
  wanted: Figure;
  narrowest: Figure;
  rise: Figure;
  /** So much of it is narrower than wanted, mm. */
  narrowMm: number;
}

const SOURCE = 'IPC-2221, outer layer.';

/** Every branch somebody knows the current of, the warmest first. */
export function trackLoads(board: EtchedBoard, netlist: Netlist, flows: ReadonlyMap<string, Flow>): TrackLoad[] {
  const { copperUm, tracks } = board;
  return board.branches
    .flatMap((branch, n): TrackLoad[] => {
      const own = tracks.filter((t) => t.branch === n);
      const { net, carries } = branch;
      const there = new Set(board.parts.filter((p) => p.pads.some((pad) => isOn(board, pad, n))).map((p) => p.of));
      const flow = branchFlow(
        branch,
        netlist.parts.filter((p) => there.has(p.ref)),
        flows,
      );
      if (!flow || own.length === 0) return [];
      const { rmsA } = flow;
      const id = `track-${net}-${carries}`;
      const narrow = Math.min(...own.map((t) => t.widthMm));
      const wantedMm = trackWidthMm(rmsA, RISE_K, copperUm);
      const amps = { label: 'what flows, RMS', value: rmsA, unit: 'A' as const };
      const copper = { label: `copper of ${copperUm} µm`, value: copperUm / 1000, unit: 'mm' as const };
      const figure = (
        own: Pick<Figure, 'id' | 'label' | 'value' | 'unit' | 'origin' | 'expression' | 'inputs'>,
      ): Figure => ({
        source: SOURCE,
        assumes: [],
        ...own,
      });
      return [
        {
          net,
          carries,
          flows: rmsFigure(id, flow),
          wanted: figure({
            id: `${id}-wanted`,
            label: 'Width wanted',
            value: Math.ceil(20 * wantedMm) / 20,
            unit: 'mm',
            origin: 'formula',
            expression: `(amps / (0.048 · kelvin^0.44))^(1/0.725) square mils, over the thickness, for ${RISE_K} K`,
            inputs: [amps, copper],
          }),
          narrowest: figure({
            id: `${id}-narrowest`,
            label: 'Narrowest',
            value: narrow,
            unit: 'mm',
            origin: 'chosen',
            expression: 'its narrowest piece as it is laid',
            inputs: [],
          }),
          rise: figure({
            id: `${id}-rise`,
            label: 'Warmer by',
            value: Math.round(10 * trackRiseK(rmsA, narrow, copperUm)) / 10,
            unit: 'K',
            origin: 'formula',
            expression: '(amps / (0.048 · square mils^0.725))^(1/0.44), its narrowest piece as if all of it were so',
            inputs: [amps, { label: 'narrowest', value: narrow, unit: 'mm' }, copper],
          }),
          narrowMm: own
            .filter((t) => t.widthMm < wantedMm - 0.05)
            .reduce((sum, t) => sum + Math.hypot(t.x2 - t.x1, t.y2 - t.y1), 0),
        },
      ];
    })
    .sort((a, b) => b.rise.value - a.rise.value);
}

/** The distance copper of two nets keeps, with where it is from. */
export function apartFigure({ apartMm }: Pick<EtchedBoard, 'apartMm'>, volts: Figure): Figure {
  return {
    id: 'board-apart',
    label: 'Kept between two nets',
    value: apartMm,
    unit: 'mm',
    origin: 'formula',
    expression:
      'to 30 V 0.1 mm, to 150 V 0.6, to 300 V 1.25, to 500 V 2.5, above 0.005 a volt; never under 0.4, so that it can be etched at home',
    inputs: [{ label: 'between two nets', value: volts.value, unit: 'V', origin: 'simulated' }],
    source: 'IPC-2221, outer, uncoated, by peak volts.',
    assumes: [`${formatQuantity(volts.value, 'V')} between any two of its nets`],
  };
}

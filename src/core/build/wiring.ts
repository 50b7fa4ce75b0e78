import type { Design } from '@/core/design/design';
import { outputsOf } from '@/core/design/outputs';
import type { MainsReport } from '@/core/mains-side/report';
import type { Net, Netlist } from '@/core/netlist/netlist';
import type { Figure } from '@/core/study/figure';
import type { Study } from '@/core/study/study';
import { flowsOf, peakFigure, rmsFigure, type Flow } from './flows';
import { offBoard } from './off-board';
import { sectionFor, WIRE_OHM_MM2_PER_M, type WireSize } from './wire-size';

/** A wire between two parts that do not stand on the board, or from one of them to the board. */
export interface WireRow {
  id: string;
  from: string;
  to: string;
  net: string;
  role: Net['role'];
  /** What flows, RMS and at its highest, A; null where only protection hangs on it. */
  rmsA: Figure | null;
  peakA: Figure | null;
  /** Volts to ground, or for the mains between its leads, at the highest. */
  volts: Figure;
  /** How long, by where its ends are in the box; null where one of them is in none. */
  length: Figure | null;
  section: Figure;
  size: WireSize;
  colour: string;
  ends: string;
  /** What every 100 mm of it adds in hum to whatever shares it, V; null where no pulses flow. */
  hum: Figure | null;
}

/** Wire between two places, m, where the box does not say. Rule of thumb. */
const ABOUT_M = 0.3;
/** What is shared is told for so much of it, m. */
const HUM_M = 0.1;

/** The order of a list: from the mains to the outputs. */
const ROLES: readonly Net['role'][] = ['mains', 'earth', 'winding', 'charging', 'rail', 'inside', 'output', 'ground'];

/** How long the wire between two parts is, by their references; 'board' and 'chassis' for those. */
export type LengthOf = (from: string, to: string) => Figure | null;

/**
 * Every wire of a design that is no track: from where to where, what flows in it, how thick it has to be.
 * @param lengthOf where it is known, as in the box
 */
export function wiring(study: Study, netlist: Netlist, mains: MainsReport, lengthOf: LengthOf): WireRow[] {
  const { design } = study;
  const flows = flowsOf(study, netlist, mains);
  const volts = voltsOf(study, netlist);
  const rows: WireRow[] = [];
  for (const net of netlist.nets) {
    const pins = netlist.parts.flatMap((part) =>
      part.pins.filter((p) => p.net === net.name).map((p) => ({ part, pin: p.name })),
    );
    const off = pins.filter(({ part }) => offBoard(part));
    const said = ({ part, pin }: (typeof pins)[number]) => `${part.ref} ${pin}`;
    // The star is the reservoir's minus: of a can beside the board, everything leaves from that can.
    const star = net.role === 'ground' ? off.find(({ part }) => part.line === 'reservoir') : undefined;
    const pairs: [string, string][] =
      net.role === 'earth'
        ? [[said(off[0]!), 'chassis, its own screw']]
        : star
          ? off.map((p) => [said(p), p === star ? `board, ${net.name}` : `${said(star)}, the star`])
          : pins.length > off.length
            ? off.map((p) => [said(p), `board, ${net.name}`])
            : off.slice(1).map((p, n) => [said(off[n]!), said(p)]);
    for (const [from, to] of pairs) rows.push(row(design, net, from, to, flows, volts.get(net.name) ?? 0, lengthOf));
  }
  const order = (r: WireRow) => ROLES.indexOf(r.role);
  return rows.sort((a, b) => order(a) - order(b));
}

function row(
  design: Design,
  net: Net,
  from: string,
  to: string,
  flows: ReadonlyMap<string, Flow>,
  volts: number,
  lengthOf: LengthOf,
): WireRow {
  const ref = from.split(' ')[0]!;
  const length = lengthOf(ref, to.split(/[ ,]/)[0]!);
  const flow =
    net.role === 'earth' ? null : (flows.get(`${ref} ${net.name}`) ?? flows.get(ref) ?? flows.get(net.name) ?? null);
  // Nothing flows in earth until something is wrong; then it has to bear what the mains leads bear.
  const bearsA = (net.role === 'earth' ? flows.get('L') : flow)?.rmsA ?? 0;
  const { figure: section, size } = sectionFor(
    net.role,
    bearsA,
    design.demand.outputV,
    length ? length.value / 1000 : ABOUT_M,
  );
  const ohm = (WIRE_OHM_MM2_PER_M * HUM_M) / size.mm2;
  return {
    id: `${from} > ${to}`,
    from,
    to,
    net: net.name,
    role: net.role,
    rmsA: flow && rmsFigure(`${from}-${to}`, flow),
    peakA: flow && peakFigure(`${from}-${to}`, flow),
    volts: {
      id: `${from}-${to}-volts`,
      label: net.role === 'mains' ? 'Volts between the leads' : 'Volts to ground',
      value: volts,
      unit: 'V',
      origin: net.role === 'ground' || net.role === 'earth' ? 'chosen' : 'simulated',
      expression: net.role === 'output' ? 'what it is set to' : 'highest input, no load, crest',
      inputs: [],
      source: 'The design’s own idle point.',
      assumes: [],
    },
    length: length && { ...length, id: `${from}-${to}-length` },
    section: { ...section, id: `${from}-${to}-section` },
    size,
    colour: colourOf(net),
    ends: endsOf(net, from, to),
    hum:
      flow?.pulses && flow.peakA !== null
        ? {
            id: `${from}-${to}-hum`,
            label: 'Hum by 100 mm of it shared',
            value: flow.peakA * ohm,
            unit: 'V',
            origin: 'formula',
            expression: 'peak of the charging pulses × resistance of 100 mm',
            inputs: [
              { label: 'pulse', value: flow.peakA, unit: 'A', origin: 'simulated' },
              { label: 'resistance of 100 mm', value: ohm, unit: 'ohm', origin: 'formula' },
            ],
            source: 'Copper 17.2 mΩ·mm²/m at 20 °C.',
            assumes: ['Something else is joined at the far end of it instead of at the star.'],
          }
        : null,
  };
}

/** The highest volts of each net to ground; of the mains between its leads. */
function voltsOf({ design, idle }: Study, { nets }: Netlist): Map<string, number> {
  const rail = (r: number) => idle.rails[r]?.rail.inputMaxV ?? idle.rails[0]!.rail.inputMaxV;
  const outs = new Map(outputsOf(design).map((o) => [o.name, o]));
  return new Map(nets.map(({ name, role, rail: at }): [string, number] => [name, highest(name, role, at)]));

  function highest(name: string, role: Net['role'], at: Net['rail']): number {
    switch (role) {
      case 'mains':
        return design.mains.voltageRms * (1 + design.mains.highPct / 100);
      case 'ground':
      case 'earth':
        return 0;
      case 'winding':
        return Math.SQRT2 * idle.winding.voltageRms;
      case 'output':
        return outs.get(name)?.demand.outputV ?? rail(at ?? 0);
      default:
        return rail(at ?? 0);
    }
  }
}

function colourOf({ role, name, rail }: Net): string {
  if (role === 'earth') return 'green-yellow, for nothing else';
  if (role === 'mains') return name.startsWith('N') ? 'blue' : 'brown';
  if (role === 'ground') return 'black';
  if (role === 'winding') return 'grey';
  if (role === 'inside') return 'white';
  return rail === 1 ? 'violet' : 'red';
}

function endsOf({ role }: Net, from: string, to: string): string {
  if (role === 'earth') return 'ring under its own screw, toothed washer';
  if (role === 'mains') return 'insulated spades, sleeved';
  if (/^J/.test(from) || /^J/.test(to)) return 'solder or ring at the clamp, screw at the board';
  return 'the part’s own leads or solder, screw at the board';
}

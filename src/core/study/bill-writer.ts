import { sinksOf, type Sink } from '@/core/design/sinks';
import { partsIn } from '@/core/drawer/fit';
import type { PartRole } from '@/core/design/kinds';
import type { NetPart, Netlist } from '@/core/netlist/netlist';
import { netlistOf } from '@/core/netlist/netlist-of';
import { referencesOf } from '@/core/netlist/references';
import { hardestOf, unloaded, type Hardest } from './bill-need';
import { figureText, type Figure } from './figure';
import type { Study } from './study';
import type { BillLine } from './bill-sums';

/** Writes the lines of a bill one after the other, and knows what they are asked for. */
export interface BillWriter {
  study: Study;
  lines: BillLine[];
  add(role: PartRole | null, line: NewLine): void;
  netlist: Netlist;
  /** Parts of a line, and their references. */
  onLine(line: string): NetPart[];
  refs(line: string): string;
  sinkRefs(of: Sink['of']): string;
  worst: ReturnType<typeof hardestOf>;
  withoutLoad(value: number): Hardest;
}

/** A line as it is written: what it has to bear as figures, or as words where only words are said. */
export type NewLine = Omit<
  BillLine,
  'role' | 'fromDrawer' | 'typicalPrice' | 'priceEachEur' | 'lossW' | 'needed' | 'bears'
> & {
  needed: string | readonly Figure[];
  priceEur: number;
  lossW?: number;
};

export function billWriter(study: Study): BillWriter {
  const { design } = study;
  const picks = new Map(partsIn(design).map((p) => [p.role, p]));
  const lines: BillLine[] = [];
  const add = (role: PartRole | null, line: NewLine) => {
    const pick = role ? picks.get(role) : undefined;
    const { priceEur, lossW = null, needed, ...rest } = line;
    const bears = typeof needed === 'string' ? [] : needed.map((f) => ({ ...f, id: `${lines.length}: ${f.label}` }));
    const drawerEach = pick && pick.priceEur !== null ? pick.priceEur / line.count : null;
    lines.push({
      ...rest,
      needed: typeof needed === 'string' ? needed : bears.map(figureText).join(', '),
      bears,
      lossW,
      role,
      fromDrawer: pick?.name ?? null,
      priceEachEur: drawerEach ?? priceEur,
      typicalPrice: drawerEach === null,
    });
  };
  const netlist = netlistOf(design);
  const onLine = (line: string) => netlist.parts.filter((p) => p.line === line);
  const refs = (line: string) => referencesOf(onLine(line));
  const sinks = sinksOf(design);
  const sinkRefs = (of: Sink['of']) => referencesOf(sinks.filter((s) => s.of === of));
  return {
    study,
    lines,
    add,
    netlist,
    onLine,
    refs,
    sinkRefs,
    worst: hardestOf(study),
    withoutLoad: (v) => unloaded(study, v),
  };
}

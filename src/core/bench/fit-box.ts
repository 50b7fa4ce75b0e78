import { blankRow } from '@/core/design/blank-row';
import { applyPatch, type Design, type LoadRow } from '@/core/design/design';
import type { BoxReadings } from '@/core/size/box-readings';
import { fitDesign } from './fit-design';

/**
 * A first design of a box, fitted to everything read of it. The readings stay with it as its load line, so that it can be
 * fitted again once more is read.
 * @param more further rows of the same evening
 * @param at when it was read, ISO
 * @throws SolveError where the first design has no answer in a state it was read in
 */
export function fittedToBox(first: Design, r: BoxReadings, more: readonly LoadRow[], at: string): Design {
  const row = (loadA: number, reservoirV: number, rippleV: number | null) =>
    blankRow({ at, mainsV: r.mainsV, loadA, reservoirV, rippleV });
  const loadLine = [row(0, r.idleV, null), row(r.loadA, r.loadedV, r.rippleVpp), ...more];
  const design = { ...first, bench: { ...first.bench, loadLine } };
  const found = fitDesign(design, ['open', 'copper', 'capacitance']);
  return typeof found === 'string' ? design : applyPatch(design, found.patch);
}

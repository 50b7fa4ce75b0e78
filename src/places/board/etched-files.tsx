'use client';

import { Download } from 'lucide-react';
import { useState } from 'react';
import { byNet, saidVolts } from '@/core/bench/said-volts';
import type { EtchedBoard } from '@/core/board/etched';
import { netlistOf } from '@/core/netlist/netlist-of';
import { download, fileName, save } from '@/ui/download';
import { useDesign } from '@/ui/session';
import { asked } from '@/workers/asked';

/** A board's files: for those who make it, and to print. */
export function EtchedFiles({ board }: { board: EtchedBoard }) {
  const design = useDesign();
  const [busy, setBusy] = useState(false);
  const name = fileName(design.name);
  /** What test points read goes on the print; where it cannot be solved they go without. */
  const volts = async () => {
    const netlist = netlistOf(design);
    const points = await asked((solver) => solver.bench(design));
    const said = saidVolts(netlist, points.ok ? points.value : []);
    return byNet(netlist, said);
  };
  const made = (work: () => Promise<void>) => () => {
    setBusy(true);
    void work().finally(() => setBusy(false));
  };
  const house = made(async () => {
    const [{ boardZip }, said] = await Promise.all([import('@/core/board/board-zip'), volts()]);
    save(`${name}-board.zip`, new Blob([boardZip(board, name, said).slice().buffer], { type: 'application/zip' }));
  });
  const pdf = made(async () => {
    const [{ boardPdf }, said] = await Promise.all([import('@/core/board/board-pdf'), volts()]);
    const bytes = await boardPdf(board, design.name, said);
    save(`${name}-board.pdf`, new Blob([bytes.slice().buffer], { type: 'application/pdf' }));
  });
  const svg = made(async () => {
    const [{ boardSvg }, { printViews }, said] = await Promise.all([
      import('@/core/board/board-svg'),
      import('@/core/board/board-print'),
      volts(),
    ]);
    for (const view of printViews(board))
      download(`${name}-${view.replace(/ /g, '-')}.svg`, boardSvg(board, view, design.name, said), 'image/svg+xml');
  });
  const csv = made(async () => {
    const { boardCsv } = await import('@/core/board/centroid');
    download(`${name}-board.csv`, boardCsv(board), 'text/csv');
  });
  return (
    <section aria-label="Files">
      <h2 className="text-[15px] font-semibold">To have it made, or to make it</h2>
      <p className="text-[13.5px] text-quiet">
        Gerber X2, drill and centroids in one ZIP for a board house; PDF and SVG at 1 : 1 for toner or film. Measure the
        100 mm line of the print first.
      </p>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        <button type="button" className="btn" disabled={busy} onClick={house}>
          <Download size={15} /> Gerber, ZIP
        </button>
        <button type="button" className="btn" disabled={busy} onClick={pdf}>
          <Download size={15} /> PDF, 1 : 1
        </button>
        <button type="button" className="btn" disabled={busy} onClick={svg}>
          <Download size={15} /> SVG
        </button>
        <button type="button" className="btn" disabled={busy} onClick={csv}>
          <Download size={15} /> CSV
        </button>
      </div>
    </section>
  );
}

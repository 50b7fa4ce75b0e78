'use client';

import { Download } from 'lucide-react';
import { useState } from 'react';
import type { WireRow } from '@/core/build/wiring';
import { wiringCsv } from '@/core/build/wiring-csv';
import type { Design } from '@/core/design/design';
import { TOUCH_DC_V } from '@/core/parts/touch-limits';
import { formatQuantity } from '@/core/quantity/format';
import type { Figure } from '@/core/study/figure';
import { Alert } from '@/ui/alert';
import { download, fileName } from '@/ui/download';
import { FigureButton } from '@/ui/figure-button';
import { Room } from '@/ui/room';
import { useDesign, useEdit } from '@/ui/session';
import { useSolved } from '@/ui/use-solved';
import { Working } from '@/ui/working';
import type { RemoteSolver } from '@/workers/client';

const askWires = (solver: RemoteSolver, design: Design) => solver.wires(design);

/** Wiring: every wire that is no track, what flows in it, how thick it has to be, and what must not share it. */
export function Wiring() {
  const design = useDesign();
  const edit = useEdit();
  const made = new Set(design.build.wired);
  const { value: rows, trouble } = useSolved(askWires);
  const [opened, setOpened] = useState<string | null>(null);
  const figures =
    rows?.flatMap((r) => [r.rmsA, r.peakA, r.volts, r.length, r.section, r.hum]).filter((f) => f !== null) ?? [];
  const open = figures.find((f) => f.id === opened);
  const worst = rows?.reduce<Figure | null>((a, r) => (r.hum && r.hum.value > (a?.value ?? 0) ? r.hum : a), null);
  const cell = (figure: Figure | null, text?: string) =>
    figure && (
      <FigureButton figure={figure} {...(text === undefined ? {} : { text })} open={opened} onOpen={setOpened} />
    );
  return (
    <Room name={null} className="">
      <div className="mx-auto max-w-[1180px] px-5 pb-12 pt-3">
        <div className="flex flex-wrap items-end gap-x-3 gap-y-2">
          <div className="mr-auto max-w-[760px]">
            <h1 className="text-[23px] font-semibold leading-7">From where to where</h1>
            <p className="text-[15px]">
              The star is the reservoir’s minus. The output’s ground and the regulator’s ground each leave from it on a
              wire of their own; what is joined anywhere else on the charging wires hums
              {worst && (
                <>
                  : {cell(worst, formatQuantity(worst.value, 'V', 2))} for every 100 mm it shares with{' '}
                  {formatQuantity(worst.inputs[0]!.value, 'A', 3)} pulses
                </>
              )}
              .
            </p>
          </div>
          <button
            type="button"
            className="btn"
            disabled={!rows}
            onClick={() => rows && download(`${fileName(design.name)}-wiring.csv`, wiringCsv(rows), 'text/csv')}
          >
            <Download size={15} /> CSV
          </button>
        </div>
        <p role="note" className="mt-2 border-l-[3px] border-fail pl-3 text-[14.5px]">
          Mains: insulated leads and spades, sleeves over every joint, earth longest so that it parts last, nothing of
          it within 8 mm of low volts. Local rules come first; have a licensed electrician look where you are not one.
        </p>
        {trouble && <Alert className="mt-2">{trouble}</Alert>}
        {!rows && !trouble && (
          <p className="py-6 text-quiet" aria-live="polite">
            Solving…
          </p>
        )}
        {rows && (
          <div className="mt-3 overflow-x-auto">
            <table className="w-full min-w-[860px] text-[14.5px]">
              <thead className="text-left text-[13px] text-quiet">
                <tr>
                  <th className="w-[52px] font-normal">Made</th>
                  <th className="font-normal">From</th>
                  <th className="font-normal">To</th>
                  <th className="pl-4 text-right font-normal">RMS</th>
                  <th className="pl-4 text-right font-normal">Peak</th>
                  <th className="pl-4 text-right font-normal">Volts, at most</th>
                  <th className="pl-4 text-right font-normal">mm long</th>
                  <th className="pl-4 text-right font-normal">mm²</th>
                  <th className="pl-4 text-right font-normal">AWG</th>
                  <th className="pl-4 text-right font-normal">Hum, 100 mm shared</th>
                  <th className="pl-4 font-normal">Colour</th>
                  <th className="pl-3 font-normal">Ends</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((r) => (
                  <tr key={r.id} className={`border-t border-rule/60 ${hurts(r) ? 'text-fail' : ''}`}>
                    <td className="py-1">
                      <input
                        type="checkbox"
                        aria-label={`Made: ${r.from} to ${r.to}`}
                        checked={made.has(r.id)}
                        onChange={(e) =>
                          edit({
                            build: {
                              wired: e.target.checked
                                ? [...design.build.wired, r.id]
                                : design.build.wired.filter((w) => w !== r.id),
                            },
                          })
                        }
                      />
                    </td>
                    <td className="py-1 font-semibold">{r.from}</td>
                    <td className="py-1">{r.to}</td>
                    <td className="whitespace-nowrap pl-4 text-right tabular-nums">{cell(r.rmsA)}</td>
                    <td className="whitespace-nowrap pl-4 text-right tabular-nums">{cell(r.peakA)}</td>
                    <td className="whitespace-nowrap pl-4 text-right tabular-nums">
                      {hurts(r) && '⚠ '}
                      {cell(r.volts)}
                    </td>
                    <td className="whitespace-nowrap pl-4 text-right tabular-nums">
                      {cell(r.length, r.length ? String(r.length.value) : undefined)}
                    </td>
                    <td className="whitespace-nowrap pl-4 text-right tabular-nums">
                      {cell(r.section, String(r.size.mm2))}
                    </td>
                    <td className="whitespace-nowrap pl-4 text-right tabular-nums">{r.size.awg}</td>
                    <td className="whitespace-nowrap pl-4 text-right tabular-nums">
                      {cell(r.hum, r.hum ? formatQuantity(r.hum.value, 'V', 2) : undefined)}
                    </td>
                    <td className="pl-4">{r.colour}</td>
                    <td className="pl-3 text-quiet">{r.ends}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )}
        {open && (
          <div className="sticky bottom-0 mt-2 border-l-2 border-volt bg-paper py-2 pl-3">
            <Working figure={open} />
          </div>
        )}
      </div>
    </Room>
  );
}

const hurts = (r: WireRow) => r.role === 'mains' || r.volts.value > TOUCH_DC_V;

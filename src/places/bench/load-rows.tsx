'use client';

import { Trash2 } from 'lucide-react';
import { useRef, useState } from 'react';
import type { ComputedLine } from '@/core/bench/load-line';
import { judgedWhenFed, mainsToday } from '@/core/bench/readings';
import { rowFault } from '@/core/bench/row-fault';
import type { Design, LoadRow } from '@/core/design/design';
import { LOAD_ROWS_MAX } from '@/core/design/how-many';
import { rangeFault, type FieldPath } from '@/core/design/limits';
import { mainModel } from '@/core/design/outputs';
import { blankRow } from '@/core/design/blank-row';
import { FED_FROM } from '@/core/design/kinds';
import { parseLoad } from '@/core/quantity/load';
import { parseQuantity, type Unit } from '@/core/quantity/parse';
import { formatQuantity } from '@/core/quantity/format';
import { AmountCell } from '@/ui/amount-cell';
import { IconButton } from '@/ui/icon-button';
import { save } from '@/ui/download';
import { useDesign, useEdit } from '@/ui/session';
import { FED_WORDS } from './fed-words';
import dynamic from 'next/dynamic';
import { orSay } from '@/ui/loading';
import { Working } from '@/ui/working';

const PasteRows = dynamic(
  orSay(() => import('./paste-rows').then((m) => m.PasteRows)),
  { ssr: false },
);

const READ = [
  { key: 'reservoirV', path: 'bench.volts', label: 'Reservoir, V' },
  { key: 'rippleV', path: 'bench.volts', label: 'Ripple, p-p' },
  { key: 'outputV', path: 'bench.volts', label: 'Output, V' },
  { key: 'sinkC', path: 'bench.sinkC', label: 'Metal, °C' },
] as const;
/** How long the load had hung on it: copper and metal are as warm as that. */
const LOADED = 'Loaded for';

/** The measured rows, each beside what the design says of it, and a row to type the next one in. */
export function LoadRows({
  computed,
  sweeps,
  onSweep,
}: {
  computed: ComputedLine | null;
  /** Whether the sweep stands open below. */
  sweeps: boolean;
  onSweep(): void;
}) {
  const design = useDesign();
  const edit = useEdit();
  const [pasting, setPasting] = useState(false);
  const [opened, setOpened] = useState<string | null>(null);
  const open = opened ? computed?.at[opened]?.figure : undefined;
  const rows = design.bench.loadLine;
  const keep = (loadLine: LoadRow[]) => edit({ bench: { loadLine } });
  const change = (n: number, part: Partial<LoadRow>) => keep(rows.map((r, k) => (k === n ? { ...r, ...part } : r)));
  return (
    <section aria-label="Measured rows" className="min-w-0">
      <div className="overflow-x-auto" role="region" aria-label="Rows read" tabIndex={0}>
        <table className="w-full min-w-[846px] table-fixed text-[14px]">
          <colgroup>
            {COLUMNS_PX.map((width, n) => (
              <col key={n} style={width === null ? {} : { width }} />
            ))}
          </colgroup>
          <thead className="text-left text-[12.5px] text-quiet">
            <tr>
              <th className="px-1 font-normal">Load</th>
              <th className="px-1 font-normal">{design.source.kind === 'mains' ? 'Mains then' : 'Source then'}</th>
              <th className="px-1 font-normal">Fed from</th>
              {READ.map((c) => (
                <th key={c.key} className="px-1 font-normal">
                  {c.label}
                </th>
              ))}
              <th className="px-1 font-normal">{LOADED}</th>
              <th className="px-1 font-normal">Against the design</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {rows.map((row, n) => (
              <tr key={n} className="border-t border-rule/60" data-testid="load-row">
                <AmountCell
                  path="bench.loadA"
                  label={`Row ${n + 1}: load`}
                  value={row.loadA}
                  volts={design.demand.outputV}
                  onCommit={(v) => change(n, { loadA: v! })}
                />
                <AmountCell
                  path="bench.sourceV"
                  label={`Row ${n + 1}: mains then`}
                  value={row.mainsV}
                  onCommit={(v) => change(n, { mainsV: v! })}
                />
                <td className="px-1">
                  <select
                    className="field !px-1"
                    aria-label={`Row ${n + 1}: fed from`}
                    value={row.fedFrom}
                    onChange={(e) => change(n, { fedFrom: e.target.value as LoadRow['fedFrom'] })}
                  >
                    {FED_FROM.map((f) => (
                      <option key={f} value={f}>
                        {FED_WORDS[f]}
                      </option>
                    ))}
                  </select>
                </td>
                {READ.map((c) => (
                  <AmountCell
                    key={c.key}
                    path={c.path}
                    label={`Row ${n + 1}: ${c.label}`}
                    value={row[c.key]}
                    placeholder="–"
                    onCommit={(v) => change(n, { [c.key]: v })}
                  />
                ))}
                <AmountCell
                  path="bench.loadedS"
                  label={`Row ${n + 1}: ${LOADED.toLowerCase()}`}
                  value={row.loadedS}
                  placeholder="warm"
                  onCommit={(v) => change(n, { loadedS: v })}
                />
                <td
                  className="min-w-[160px] whitespace-nowrap px-1 leading-[18px]"
                  style={{ height: heightOf(design, row) }}
                >
                  <Against design={design} row={row} n={n} computed={computed} opened={opened} onOpen={setOpened} />
                  {row.note !== '' && <span className="block text-[12.5px] text-tight">{row.note}</span>}
                </td>
                <td>
                  <IconButton
                    label={`Remove row ${n + 1}`}
                    title="Remove this row"
                    onClick={() => keep(rows.filter((_, k) => k !== n))}
                  >
                    <Trash2 size={15} />
                  </IconButton>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {open && (
        <div className="mt-1.5 border-l-2 border-volt pl-3">
          <Working figure={open} />
        </div>
      )}
      <div role="status">
        {computed?.odd.map((sentence) => (
          <p key={sentence} className="border-t border-rule/60 py-1.5 text-[14.5px] font-semibold text-tight">
            {sentence}
          </p>
        ))}
      </div>
      {rows.length === 0 && (
        <p className="border-t border-rule/60 py-2 text-[14px] text-quiet">
          Nothing read yet. Begin without load, then a resistor or two, up to the full{' '}
          {formatQuantity(design.demand.outputA, 'A')}.
        </p>
      )}
      {rows.length < LOAD_ROWS_MAX && <NextRow onKeep={(row) => keep([...rows, row])} />}
      <div className="mt-2 flex flex-wrap gap-2">
        <button type="button" className="btn" aria-expanded={pasting} onClick={() => setPasting(!pasting)}>
          Paste or read a file
        </button>
        <button type="button" className="btn" aria-expanded={sweeps} onClick={onSweep}>
          Sweep it
        </button>
        {rows.length > 0 && (
          <button
            type="button"
            className="btn"
            onClick={() =>
              void import('@/core/bench/rows-csv').then(({ rowsCsv }) =>
                save('load-line.csv', new Blob([rowsCsv(rows)], { type: 'text/csv' })),
              )
            }
          >
            CSV
          </button>
        )}
        {computed && (
          <button
            type="button"
            className="btn"
            onClick={() =>
              void import('@/core/bench/line-svg').then(({ lineSvg }) =>
                save('load-line.svg', new Blob([lineSvg(design.name, computed, rows)], { type: 'image/svg+xml' })),
              )
            }
          >
            SVG
          </button>
        )}
      </div>
      {pasting && (
        <PasteRows
          room={LOAD_ROWS_MAX - rows.length}
          onClose={() => setPasting(false)}
          onTake={(more) => {
            keep([...rows, ...more]);
            setPasting(false);
          }}
        />
      )}
    </section>
  );
}

/** Room for what will be said of a row, so that nothing moves when it comes, px. */
function heightOf(design: Design, row: LoadRow): number {
  const judged = judgedWhenFed(design, row.fedFrom);
  const lines = judged
    ? READ.filter((c) => row[c.key] !== null && (c.key !== 'outputV' || mainModel(design) === null)).length
    : 1;
  return Math.max(52, LINE_PX * lines + (row.note === '' ? 0 : NOTE_PX) + 1);
}
/** Of load, mains, fed from, reservoir, ripple, output, metal, how long, what it comes to, and what removes it. */
const COLUMNS_PX = [88, 80, 98, 82, 82, 78, 76, 80, null, 32] as const;
const LINE_PX = 24;
const NOTE_PX = 18;

/** How far a row's readings are from the design, in the words of the power-up. */
function Against({
  design,
  row,
  n,
  computed,
  opened,
  onOpen,
}: {
  design: Design;
  row: LoadRow;
  n: number;
  computed: ComputedLine | null;
  /** The reading whose working stands below. */
  opened: string | null;
  onOpen(id: string | null): void;
}) {
  if (!judgedWhenFed(design, row.fedFrom))
    return <span className="text-[13px] text-quiet">{FED_WORDS[row.fedFrom]}: not held against it</span>;
  const lines = READ.flatMap((c) => computed?.at[`row-${n}-${c.key}`] ?? []);
  if (lines.length === 0)
    return (
      <span className="text-[13px] text-quiet">
        {computed && mainModel(design) && row.outputV !== null ? 'see the power-up' : '…'}
      </span>
    );
  return (
    <ul>
      {lines.map(({ figure, outside }) => (
        <li key={figure.id}>
          <button
            type="button"
            className={`num min-h-[24px] text-[13px] ${outside ? 'font-semibold text-fail' : ''}`}
            aria-pressed={figure.id === opened}
            onClick={() => onOpen(figure.id === opened ? null : figure.id)}
          >
            {outside ? '✕ ' : ''}
            {WORDS[figure.id.slice(figure.id.lastIndexOf('-') + 1)]}{' '}
            {formatQuantity(Math.abs(figure.value), figure.unit, 2)} {figure.value < 0 ? 'below' : 'above'}
          </button>
        </li>
      ))}
    </ul>
  );
}

const WORDS: Readonly<Record<string, string>> = Object.fromEntries(
  READ.map((c) => [c.key, c.label.split(',')[0]!.toLowerCase()]),
);

const FIELDS = [
  { key: 'load', label: 'Load', hint: '0.5 A, 27 ohm, 6 W' },
  { key: 'mains', label: 'Mains then', hint: '' },
  { key: 'reservoirV', label: 'Reservoir', hint: 'V' },
  { key: 'rippleV', label: 'Ripple, p-p', hint: 'V' },
  { key: 'outputV', label: 'Output', hint: 'V' },
  { key: 'sinkC', label: 'Metal', hint: '°C' },
  { key: 'loaded', label: LOADED, hint: '2 min' },
] as const;

const EMPTY = { load: '', mains: '', reservoirV: '', rippleV: '', outputV: '', sinkC: '', loaded: '' };

/** A bare number of how long is minutes. */
const inMinutes = (text: string) => (/^\s*[\d.,]+\s*$/.test(text) ? `${text} min` : text);

/** The next row, typed from field to field; Enter keeps it and goes back to the load. */
function NextRow({ onKeep }: { onKeep(row: LoadRow): void }) {
  const design = useDesign();
  const [texts, setTexts] = useState(EMPTY);
  const [fault, setFault] = useState<string | null>(null);
  const first = useRef<HTMLInputElement>(null);
  const last = design.bench.loadLine.at(-1);
  const mainsV = last?.mainsV ?? mainsToday(design);

  function keep() {
    const load = parseLoad(texts.load, design.demand.outputV);
    if (!load.ok) return setFault(`Load: ${load.error}`);
    const number = (text: string, unit: Unit, path: FieldPath) => {
      if (text.trim() === '') return { value: null, fault: null };
      const read = parseQuantity(text, unit);
      return read.ok ? { value: read.value, fault: rangeFault(path, read.value) } : { value: null, fault: read.error };
    };
    const mains = number(texts.mains, 'V', 'bench.sourceV');
    const read = READ.map((c) => ({ ...c, ...number(texts[c.key], c.key === 'sinkC' ? '°C' : 'V', c.path) }));
    const loaded = { label: LOADED, ...number(inMinutes(texts.loaded), 's', 'bench.loadedS') };
    const wrong = [{ label: 'Mains then', ...mains }, ...read, loaded].find((r) => r.fault);
    const over = rangeFault('bench.loadA', load.value);
    if (over) return setFault(over);
    if (wrong) return setFault(`${wrong.label}: ${wrong.fault}`);
    const row = blankRow({
      at: new Date().toISOString(),
      mainsV: mains.value ?? mainsV,
      fedFrom: last?.fedFrom ?? (design.source.kind === 'mains' ? 'mains' : 'bench supply'),
      loadA: load.value,
      reservoirV: read[0]!.value,
      rippleV: read[1]!.value,
      outputV: read[2]!.value,
      sinkC: read[3]!.value,
      loadedS: loaded.value,
    });
    const whole = rowFault(row);
    if (whole) return setFault(`This row: ${whole}.`);
    setFault(null);
    setTexts(EMPTY);
    onKeep(row);
    first.current?.focus();
  }

  return (
    <form
      aria-label="Next row"
      className="mt-2 border-t border-rule pt-2"
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      <div className="grid grid-cols-3 gap-2 min-[640px]:grid-cols-[repeat(7,minmax(0,1fr))_auto]">
        {FIELDS.map((f, n) => (
          <label key={f.key} className="text-[13px] text-quiet">
            {f.label}
            <input
              ref={n === 0 ? first : undefined}
              className="field !h-[34px] text-[16px] text-ink"
              autoComplete="off"
              placeholder={f.key === 'mains' ? formatQuantity(mainsV, 'V') : f.hint}
              value={texts[f.key]}
              onChange={(e) => setTexts({ ...texts, [f.key]: e.target.value })}
            />
          </label>
        ))}
        <button type="submit" className="btn btn-main self-end">
          Keep row
        </button>
      </div>
      {fault && (
        <p role="alert" className="mt-1 text-[14px] text-fail">
          {fault}
        </p>
      )}
    </form>
  );
}

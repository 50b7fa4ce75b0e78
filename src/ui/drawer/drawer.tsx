'use client';

import { useCallback, useEffect, useState } from 'react';
import { KINDS, PART_KINDS, type Part, type PartKind } from '@/core/drawer/part';
import { formatQuantity } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import { CsvImport } from './csv-import';
import { PartForm } from './part-form';
import { fetchPage, removePart, restorePart, type DrawerPage } from './parts-api';

const PAGE = 100;

/** The drawer: everything on hand or to be had, one kind at a time, sorted and filtered by any rating. */
export function Drawer() {
  const [kind, setKind] = useState<PartKind>('transformer');
  const [words, setWords] = useState('');
  const [stock, setStock] = useState(false);
  const [least, setLeast] = useState<Record<string, string>>({});
  const [sort, setSort] = useState('name');
  const [offset, setOffset] = useState(0);
  const [page, setPage] = useState<DrawerPage | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [edited, setEdited] = useState<Part | 'new' | null>(null);
  const [importing, setImporting] = useState(false);
  const [removed, setRemoved] = useState<Part | null>(null);
  const [asking, setAsking] = useState<{ part: Part; users: { id: string; name: string }[] } | null>(null);
  const { ratings } = KINDS[kind];

  const query = new URLSearchParams({ kind, words, sort, offset: String(offset), limit: String(PAGE) });
  if (stock) query.set('stock', '1');
  const faults: Record<string, string> = {};
  for (const field of ratings) {
    const text = least[field.key]?.trim();
    if (!text) continue;
    const read = parseQuantity(text, field.unit);
    if (read.ok) query.set(`${field.lessIsBetter ? 'most' : 'least'}.${field.key}`, String(read.value));
    else faults[field.key] = read.error;
  }
  const asked = query.toString();

  const load = useCallback(async () => {
    const answer = await fetchPage(new URLSearchParams(asked));
    if (answer.ok) {
      setPage(answer.value);
      setTrouble(null);
    } else setTrouble(answer.sentence);
  }, [asked]);

  useEffect(() => {
    const timer = setTimeout(() => void load(), 60);
    return () => clearTimeout(timer);
  }, [load]);

  async function take(part: Part, sure = false) {
    const answer = await removePart(part.id, sure);
    if (answer.ok) {
      setAsking(null);
      setRemoved(part);
      return load();
    }
    if (answer.users) setAsking({ part, users: answer.users });
    else setTrouble(answer.sentence);
  }

  const heads: { key: string; label: string }[] = [
    { key: 'name', label: 'Part' },
    ...ratings.map((r) => ({ key: r.key, label: r.label })),
    { key: 'count', label: 'Count' },
    { key: 'price', label: 'Price' },
  ];

  return (
    <div className="flex min-h-0 flex-1 gap-4">
      <nav aria-label="Kinds of parts" className="w-[150px] shrink-0">
        <ul>
          {PART_KINDS.map((k) => (
            <li key={k}>
              <button
                type="button"
                aria-current={k === kind}
                className={`flex w-full justify-between rounded px-2 py-[5px] text-left text-[14px] ${k === kind ? 'bg-ink text-paper' : 'hover:bg-sunk'}`}
                onClick={() => {
                  setKind(k);
                  setLeast({});
                  setSort('name');
                  setOffset(0);
                }}
              >
                {KINDS[k].name}
                <span className={k === kind ? '' : 'text-quiet'}>{page?.counts[k] ?? ''}</span>
              </button>
            </li>
          ))}
        </ul>
      </nav>
      <section aria-label={KINDS[kind].name} className="flex min-w-0 flex-1 flex-col">
        <div className="flex flex-wrap items-center gap-2 pb-2">
          <input
            className="field !w-[220px]"
            placeholder="Find by name, place or note"
            aria-label="Find by name, place or note"
            value={words}
            onChange={(e) => {
              setWords(e.target.value);
              setOffset(0);
            }}
          />
          <label className="flex items-center gap-1.5 text-[14px]">
            <input
              type="checkbox"
              className="accent-volt"
              checked={stock}
              onChange={(e) => {
                setStock(e.target.checked);
                setOffset(0);
              }}
            />
            on hand only
          </label>
          <span className="flex-1" />
          <button type="button" className="btn" onClick={() => setEdited('new')}>
            Add a part
          </button>
          <button type="button" className="btn" onClick={() => setImporting(true)}>
            Read a CSV
          </button>
          <a className="btn" href="/api/parts/csv" download>
            Save as CSV
          </a>
        </div>
        {trouble && (
          <p role="alert" className="mb-2 rounded border-2 border-fail px-3 py-1.5 text-fail">
            {trouble}
          </p>
        )}
        {asking && (
          <div role="alertdialog" aria-label="Part in use" className="mb-2 rounded border-2 border-tight px-3 py-2">
            <p>
              “{asking.part.name}” is in {asking.users.map((u) => u.name).join(', ')}. Those designs keep its values;
              their bills will say it has to be bought.
            </p>
            <div className="mt-1.5 flex gap-2">
              <button type="button" className="btn" autoFocus onClick={() => setAsking(null)}>
                Keep it
              </button>
              <button type="button" className="btn" onClick={() => void take(asking.part, true)}>
                Take it out all the same
              </button>
            </div>
          </div>
        )}
        {removed && (
          <p role="status" className="mb-2 flex items-center gap-3 rounded border border-rule bg-raised px-3 py-1.5">
            <span key={removed.id} tabIndex={-1} className="outline-none" ref={(told) => told?.focus()}>
              ‘{removed.name}’ is out of the drawer.
            </span>
            <button
              type="button"
              className="btn"
              onClick={() =>
                void restorePart(removed).then(() => {
                  setRemoved(null);
                  return load();
                })
              }
            >
              Put it back
            </button>
          </p>
        )}
        <div className="min-h-0 flex-1 overflow-auto rounded border border-rule bg-raised">
          <table className="w-full border-collapse text-[14px]">
            <thead className="sticky top-0 bg-raised text-left">
              <tr>
                {heads.map((h) => {
                  const by = sort.replace(/^-/, '') === h.key;
                  return (
                    <th
                      key={h.key}
                      className={`px-2 pt-1.5 font-normal ${h.key === 'name' ? '' : 'text-right'}`}
                      aria-sort={by ? (sort.startsWith('-') ? 'descending' : 'ascending') : 'none'}
                    >
                      <button
                        type="button"
                        className={`min-h-[26px] whitespace-nowrap text-[13px] ${by ? 'font-semibold' : 'text-quiet'}`}
                        onClick={() => {
                          setSort(sort === h.key ? `-${h.key}` : h.key);
                          setOffset(0);
                        }}
                      >
                        {h.label}
                        {by ? (sort.startsWith('-') ? ' ↓' : ' ↑') : ''}
                      </button>
                    </th>
                  );
                })}
                <th className="px-2 text-[13px] font-normal text-quiet">Place</th>
                <td />
              </tr>
              <tr className="border-b border-rule">
                <td className="px-2 pb-1.5 text-[12.5px] text-quiet">{page ? `${page.total} of them` : 'reading…'}</td>
                {ratings.map((r) => (
                  <td key={r.key} className="px-1 pb-1.5 text-right">
                    <input
                      className="field !h-[24px] !w-[84px] text-right !text-[13px]"
                      placeholder={r.lessIsBetter ? 'at most' : 'at least'}
                      aria-label={`${r.label}, ${r.lessIsBetter ? 'at most' : 'at least'}`}
                      aria-invalid={faults[r.key] !== undefined}
                      title={faults[r.key]}
                      value={least[r.key] ?? ''}
                      onChange={(e) => {
                        setLeast({ ...least, [r.key]: e.target.value });
                        setOffset(0);
                      }}
                    />
                  </td>
                ))}
                <td colSpan={4} />
              </tr>
            </thead>
            <tbody>
              {page?.parts.map((part) => (
                <tr key={part.id} className="border-t border-rule/60 hover:bg-sunk">
                  <td className="max-w-[300px] px-2 py-[3px]">
                    <button type="button" className="text-left font-medium" onClick={() => setEdited(part)}>
                      {part.name}
                    </button>
                    {part.condition === 'salvaged' && <span className="ml-1.5 text-[12.5px] text-tight">salvaged</span>}
                    {page.uses[part.id] && (
                      <span className="ml-1.5 text-[12.5px] text-volt">
                        in {page.uses[part.id]} {page.uses[part.id] === 1 ? 'design' : 'designs'}
                      </span>
                    )}
                  </td>
                  {ratings.map((r) => (
                    <td key={r.key} className="whitespace-nowrap px-2 text-right">
                      {cell(part.ratings[r.key] ?? null, r.unit)}
                    </td>
                  ))}
                  <td className={`px-2 text-right ${part.count === 0 ? 'text-quiet' : 'font-semibold'}`}>
                    {part.count}
                  </td>
                  <td className="whitespace-nowrap px-2 text-right">
                    {part.priceEur === null ? '–' : formatQuantity(part.priceEur, 'EUR')}
                  </td>
                  <td className="max-w-[140px] truncate px-2 text-quiet" title={part.place}>
                    {part.place}
                  </td>
                  <td className="px-1 text-right">
                    <button
                      type="button"
                      className="btn btn-bare !min-h-[24px] !px-1.5 text-[13px]"
                      aria-label={`take out ${part.name}`}
                      onClick={() => void take(part)}
                    >
                      take out
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {page?.parts.length === 0 && <p className="p-4 text-quiet">Nothing in the drawer is like that.</p>}
        </div>
        {page && page.total > PAGE && (
          <div className="flex items-center gap-2 pt-2 text-[14px]">
            <button type="button" className="btn" disabled={offset === 0} onClick={() => setOffset(offset - PAGE)}>
              Earlier
            </button>
            {offset + 1} to {Math.min(offset + PAGE, page.total)} of {page.total}
            <button
              type="button"
              className="btn"
              disabled={offset + PAGE >= page.total}
              onClick={() => setOffset(offset + PAGE)}
            >
              Later
            </button>
          </div>
        )}
      </section>
      {edited && (
        <PartForm
          part={edited === 'new' ? null : edited}
          kind={kind}
          onClose={(changed) => {
            setEdited(null);
            // A new one has to be seen, wherever the alphabet puts it.
            if (changed && edited === 'new') {
              setWords(changed.name);
              setOffset(0);
            }
            if (changed) void load();
          }}
        />
      )}
      {importing && (
        <CsvImport
          onClose={(taken) => {
            setImporting(false);
            if (taken) void load();
          }}
        />
      )}
    </div>
  );
}

function cell(value: number | null, unit: Parameters<typeof formatQuantity>[1]): string {
  if (value === null) return '–';
  return unit === '' ? String(value) : formatQuantity(value, unit);
}

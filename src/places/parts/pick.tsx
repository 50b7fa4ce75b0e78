'use client';

import { useEffect, useRef, useState } from 'react';
import type { Design } from '@/core/design/design';
import { PART_ROLES, type PartRole } from '@/core/design/kinds';
import { hasDiodes } from '@/core/design/source';
import { ratingLine } from '@/core/drawer/rating-line';
import { partsIn, ROLE_KINDS } from '@/core/drawer/fit';
import { formatQuantity } from '@/core/quantity/format';
import { rankCandidates, triesOf, type Candidate } from '@/core/size/candidate';
import { fetchParts } from '@/ui/drawer/parts-api';
import { Segments } from '@/ui/segments';
import { useDesign, useEdit } from '@/ui/session';
import { StateSign } from '@/ui/state-sign';
import { tryInPool } from '@/workers/browser-pool';
import { Stopped } from '@/workers/pool';

const NAMES: Record<PartRole, string> = {
  transformer: 'Transformer',
  rectifier: 'Rectifier',
  choke: 'Choke',
  reservoir: 'Reservoir',
  regulator: 'Regulator',
  transistor: 'Pass transistor',
  sink: 'Heatsink',
};
const SHOWN = 40;

/** What a design has a part for: no transformer behind a DC source, no choke or pass transistor where none stands. */
function rolesOf(design: Design): readonly PartRole[] {
  return PART_ROLES.filter(
    (role) =>
      (role !== 'transformer' || design.source.kind === 'mains') &&
      (role !== 'rectifier' || hasDiodes(design)) &&
      (role !== 'choke' || [...design.filter.before, ...design.filter.after].some((s) => s.kind === 'choke')) &&
      (role !== 'transistor' || 'transistor' in design.regulator),
  );
}

/** Only parts that could serve, each simulated in this design, best first. Enter or a click takes one. */
export function PickParts() {
  const design = useDesign();
  const edit = useEdit();
  const [role, setRole] = useState<PartRole>(design.source.kind === 'mains' ? 'transformer' : 'reservoir');
  const [stock, setStock] = useState(true);
  const [found, setFound] = useState<Candidate[]>([]);
  const [progress, setProgress] = useState({ tried: 0, of: 0, running: false });
  const [trouble, setTrouble] = useState<string | null>(null);
  const stop = useRef<AbortController>(null);
  const here = partsIn(design);

  useEffect(() => {
    const mine = new AbortController();
    stop.current = mine;
    void (async () => {
      setFound([]);
      setProgress({ tried: 0, of: 0, running: true });
      const answer = await fetchParts(ROLE_KINDS[role]);
      if (mine.signal.aborted) return;
      if (!answer.ok) {
        setTrouble(answer.sentence);
        return setProgress({ tried: 0, of: 0, running: false });
      }
      setTrouble(null);
      // What is to be bought is tried as if enough of it were there.
      const parts = answer.value.parts
        .filter((p) => !stock || p.count > 0)
        .map((p) => (p.count > 0 ? p : { ...p, count: 99 }));
      try {
        await tryInPool(design, role, triesOf(design, role, parts), {
          signal: mine.signal,
          onFound: (more) => {
            const usable = more.filter((c) => c !== null);
            setFound((old) => rankCandidates([...old, ...usable]).slice(0, SHOWN));
          },
          onProgress: (tried, of) => setProgress({ tried, of, running: true }),
        });
      } catch (error) {
        if (!(error instanceof Stopped)) throw error;
      }
      if (!mine.signal.aborted) setProgress((p) => ({ ...p, running: false }));
    })();
    return () => mine.abort();
  }, [design, role, stock]);

  return (
    <div className="flex min-h-0 flex-1 flex-col gap-2">
      <div className="flex flex-wrap items-center gap-2">
        <Segments
          label="Part of the supply"
          value={role}
          options={rolesOf(design).map((r) => ({ value: r, label: NAMES[r] }))}
          onChange={(r: PartRole) => setRole(r)}
        />
        <label className="flex items-center gap-1.5 text-[14px]">
          <input type="checkbox" className="accent-volt" checked={stock} onChange={(e) => setStock(e.target.checked)} />
          on hand only
        </label>
        <span aria-live="polite" className="text-[14px] text-quiet">
          {progress.running
            ? `Simulated ${progress.tried}${progress.of > 0 ? ` of ${progress.of}` : ''}…`
            : `${progress.tried} simulated in this design`}
        </span>
        {progress.running && (
          <button
            type="button"
            className="btn"
            onClick={() => {
              stop.current?.abort();
              setProgress((p) => ({ ...p, running: false }));
            }}
          >
            Stop
          </button>
        )}
      </div>
      {trouble && (
        <p role="alert" className="text-fail">
          {trouble}
        </p>
      )}
      <div className="min-h-0 flex-1 overflow-auto rounded border border-rule bg-raised">
        <table className="w-full border-collapse text-[14px]">
          <thead className="sticky top-0 bg-raised text-left text-[13px] text-quiet">
            <tr>
              <th className="px-2 py-1.5 font-normal">Part</th>
              <th className="px-2 font-normal">What it decides, simulated here</th>
              <th className="px-2 text-right font-normal">Fails</th>
              <th className="px-2 text-right font-normal">Lost</th>
              <th className="px-2 text-right font-normal">Price</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {found.map((c) => {
              const taken = here.some((p) => p.partId === c.part.id && p.role === role);
              return (
                <tr key={`${c.part.id} ${c.use.how}`} className="border-t border-rule/60">
                  <td className="max-w-[300px] px-2 py-1">
                    <span className="font-medium">{c.part.name}</span>
                    {c.use.how && <span className="text-quiet">, {c.use.how}</span>}
                    <span className="block text-[13px] text-quiet">
                      {ratingLine(c.part)}; {c.part.known}
                      {c.part.condition === 'salvaged' ? ', salvaged' : ''}
                      {c.part.place ? `; ${c.part.place}` : ''}
                    </span>
                  </td>
                  <td className="px-2">
                    {c.tightest && (
                      <span className="flex items-start gap-1.5">
                        <StateSign state={c.tightest.state} />
                        <span>
                          <strong className="font-medium">{c.tightest.title}:</strong> {c.tightest.sentence}
                        </span>
                      </span>
                    )}
                  </td>
                  <td className={`px-2 text-right ${c.fails > 0 ? 'font-semibold text-fail' : ''}`}>
                    {c.fails === 0 ? 'none' : c.fails}
                  </td>
                  <td className="whitespace-nowrap px-2 text-right">{formatQuantity(c.lostW, 'W')}</td>
                  <td className="whitespace-nowrap px-2 text-right">
                    {c.priceEur === null ? '–' : formatQuantity(c.priceEur, 'EUR')}
                  </td>
                  <td className="px-2 text-right">
                    <button
                      type="button"
                      className="btn !min-h-[26px]"
                      aria-disabled={taken}
                      aria-label={`${taken ? 'in it' : 'Take'} ${c.part.name}${c.use.how ? `, ${c.use.how}` : ''}`}
                      onClick={() => !taken && edit(c.patch)}
                    >
                      {taken ? 'in it' : 'Take'}
                    </button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
        {!progress.running && found.length === 0 && !trouble && (
          <p className="p-4 text-quiet">
            {stock
              ? 'Nothing on hand could serve here. Try it with parts to be bought.'
              : 'Nothing in the drawer could serve here.'}
          </p>
        )}
      </div>
    </div>
  );
}

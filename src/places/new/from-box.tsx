'use client';

import { useEffect, useState } from 'react';
import type { Design } from '@/core/design/design';
import { NAME_MAX } from '@/core/design/how-many';
import { parseQuantity, type Unit } from '@/core/quantity/parse';
import { readingsFault, type BoxReadings } from '@/core/size/box-readings';
import { Alert } from '@/ui/alert';
import { asked } from '@/workers/asked';
import { useKeptTexts } from './kept-text';
import { Preview } from './preview';
import { MainsChoice, presetOf } from './mains-choice';
import { TextField } from './text-field';
import { Awaited, WayIn } from './way-in';

const FIELDS: readonly { key: keyof BoxReadings; label: string; unit: Unit; hint: string; without?: number | null }[] =
  [
    { key: 'mainsV', label: 'Mains then', unit: 'V', hint: '230 V' },
    { key: 'idleV', label: 'Reservoir, no load', unit: 'V', hint: '36.5 V' },
    { key: 'loadedV', label: 'Reservoir, loaded', unit: 'V', hint: '30 V' },
    { key: 'loadA', label: 'With a load of', unit: 'A', hint: '1.2 A' },
    { key: 'rippleVpp', label: 'Ripple then, p-p', unit: 'V', hint: 'optional, 1.8 V', without: null },
    { key: 'flatTopPct', label: 'Mains peaks cut by', unit: '%', hint: 'optional, 3 %', without: 0 },
  ];

/** An existing box and a meter: what was read of it, and the design that behaves like it. */
export function FromBox() {
  const [texts, setTexts] = useKeptTexts('box', {
    mains: '',
    name: '',
    more: '',
    ...Object.fromEntries(FIELDS.map((f) => [f.key, ''])),
  });
  const [found, setFound] = useState<{ of: string; design: Design | null; trouble: string | null } | null>(null);
  const read = FIELDS.map((f) => {
    const text = texts[f.key]!;
    if (text.trim() !== '') return parseQuantity(text, f.unit);
    return f.without === undefined ? null : { ok: true as const, value: f.without };
  });
  const whole = read.every((r) => r?.ok)
    ? (Object.fromEntries(
        FIELDS.map((f, n) => [f.key, (read[n] as { value: number | null }).value]),
      ) as unknown as BoxReadings)
    : null;
  const fault = whole && readingsFault(whole);
  const { id: mainsId } = presetOf(texts['mains']);
  const key = whole && !fault ? JSON.stringify([whole, mainsId, texts['more']]) : '';
  const [moreFault, setMoreFault] = useState<string | null>(null);
  useEffect(() => {
    if (key === '') return;
    let current = true;
    const timer = setTimeout(() => {
      const [readings, preset, text] = JSON.parse(key) as [BoxReadings, string, string];
      void (async () => {
        const at = new Date().toISOString();
        const { readRows } = await import('@/core/bench/rows-csv');
        const more =
          text.trim() === '' ? { rows: [], errors: [] } : readRows(text, at, readings.mainsV, readings.loadedV);
        const answer = await asked((s) => s.fromReadings(readings, presetOf(preset).mains, more.rows, at));
        if (!current) return;
        setMoreFault(more.errors[0] ?? null);
        setFound(
          answer.ok
            ? { of: key, design: answer.value, trouble: null }
            : {
                of: key,
                design: null,
                trouble: `These readings do not fit a bridge and a reservoir: ${answer.error}.`,
              },
        );
      })();
    }, 250);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [key]);
  const name = texts['name']!.trim().slice(0, NAME_MAX);
  const design = key !== '' && found?.of === key ? found.design : null;
  return (
    <WayIn
      form={
        <div className="space-y-3">
          <p className="text-[14px] leading-snug text-quiet">
            Mains and a charged reservoir can kill. Read where it is closed, or have a qualified person do it; one hand,
            discharge before touching.
          </p>
          <div className="grid grid-cols-2 gap-3">
            {FIELDS.map((f, n) => {
              const r = read[n];
              return (
                <TextField
                  key={f.key}
                  label={f.label}
                  value={texts[f.key]!}
                  placeholder={f.hint}
                  fault={r && !r.ok ? r.error : null}
                  onChange={(e) => setTexts({ [f.key]: e.target.value })}
                />
              );
            })}
          </div>
          <label className="block text-[14px] font-semibold">
            More loads <span className="font-normal text-quiet">optional, one a line: amperes, volts, ripple</span>
            <textarea
              className="field !h-[64px] py-1 font-normal"
              placeholder={'0.3 A, 33.8 V, 0.5 V'}
              value={texts['more']!}
              aria-invalid={moreFault !== null}
              onChange={(e) => setTexts({ more: e.target.value })}
            />
          </label>
          {moreFault && texts['more'] !== '' && <Alert className="text-[13.5px]">{moreFault}</Alert>}
          <MainsChoice id="box-mains" value={mainsId} onChange={(id) => setTexts({ mains: id })} />
          {(fault ?? (found?.of === key ? found.trouble : null)) && <Alert>{fault ?? found!.trouble}</Alert>}
          <TextField
            label="Name"
            hint="optional"
            value={texts['name']!}
            onChange={(e) => setTexts({ name: e.target.value })}
          />
        </div>
      }
      proposal={
        <Preview
          design={design && name ? { ...design, name } : design}
          lead="It behaves as your readings say, taken as a bridge with silicon diodes and one reservoir."
          awaited={
            <Awaited title="A design that behaves like the box comes back,">
              fitted to what you read: its open volts, what its copper takes, what its reservoir still holds. The
              readings stay with it as its load line. Then try another rectifier, another load, your real mains.
            </Awaited>
          }
        />
      }
    />
  );
}

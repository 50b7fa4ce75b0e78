'use client';

import { useState } from 'react';
import { termsOf } from '@/core/design/source';
import { regulatorModel } from '@/core/parts/regulators';
import { rippleHz } from '@/core/study/point';
import type { Picture } from '@/core/picture/picture';
import { noiseReport, strayDistance } from '@/core/study/noise';
import { humBudget, RIPPLE_PP_PER_RMS } from '@/core/load/sums';
import { formatQuantity } from '@/core/quantity/format';
import { parseQuantity, type Unit } from '@/core/quantity/parse';
import { Room } from '@/ui/room';
import { FigureList } from '@/ui/figure-list';
import { useDesign, useEdit, useView } from '@/ui/session';

const FIELDS = [
  { key: 'source', label: 'Signal at its input, RMS', unit: 'V', first: '5 mV' },
  { key: 'gain', label: 'Gain', unit: 'dB', first: '40' },
  { key: 'below', label: 'Hum below the signal', unit: 'dB', first: '70' },
  { key: 'rejection', label: 'What the load itself rejects', unit: 'dB', first: '40' },
] as const satisfies readonly { key: string; label: string; unit: Unit; first: string }[];

/** Hum: from the signal back to the ripple the rail may carry, and what this supply adds to it. */
export function Hum() {
  const design = useDesign();
  const { demand, regulator } = design;
  const model = regulatorModel(regulator);
  const picture = useView((v) => v.picture);
  const edit = useEdit();
  const ripple = useView((s) => s.picture?.points.low.outputRippleVpp ?? null);
  const [texts, setTexts] = useState<Record<string, string>>(() =>
    Object.fromEntries(FIELDS.map((f) => [f.key, f.first])),
  );
  const values = FIELDS.map((f) => parseQuantity(texts[f.key]!, f.unit));
  const [source, gain, below, rejection] = values;
  const budget =
    source?.ok && gain?.ok && below?.ok && rejection?.ok
      ? humBudget({ sourceV: source.value, gainDb: gain.value, belowDb: below.value, rejectionDb: rejection.value })
      : null;
  const allowedVpp = budget ? budget.railV * RIPPLE_PP_PER_RMS : 0;
  return (
    <Room name="Hum">
      <div className="grid max-w-[1320px] grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-4 min-[1000px]:grid-cols-2">
        <section aria-label="Hum budget">
          <h2 className="text-[20px] font-semibold">How quiet the rail has to be</h2>
          <div className="mt-2 grid grid-cols-2 gap-3">
            {FIELDS.map((f, n) => {
              const read = values[n]!;
              return (
                <label key={f.key} className="text-[13px] text-quiet">
                  {f.label}
                  <input
                    className="field text-ink"
                    value={texts[f.key]}
                    aria-invalid={!read.ok}
                    onChange={(e) => setTexts({ ...texts, [f.key]: e.target.value })}
                  />
                  {!read.ok && <span className="block text-fail">{read.error}</span>}
                </label>
              );
            })}
          </div>
          {budget && (
            <p className="mt-2 text-[14px]">
              At the input hum may be {formatQuantity(budget.atInputV, 'V')} RMS; with what the load rejects, the rail
              may carry <strong>{formatQuantity(budget.railV, 'V')} RMS</strong>, about{' '}
              {formatQuantity(allowedVpp, 'V')} peak to peak of ripple. The signal comes out at{' '}
              {formatQuantity(budget.signalOutV, 'V')}, the hum at {formatQuantity(budget.humOutV, 'V')}.
              {ripple !== null && (
                <>
                  {' '}
                  This supply gives {formatQuantity(ripple, 'V')} p-p at {termsOf(design).low}
                  {model && ` behind ${model.rejectionDb(rippleHz(design)).toFixed(0)} dB of rejection`}: computed
                  ripple only, without stray field and without what shared ground wires add.
                </>
              )}
            </p>
          )}
          {budget &&
            allowedVpp > 0 &&
            Math.abs(demand.rippleVpp / allowedVpp - 1) > 1e-3 &&
            allowedVpp >= 1e-6 &&
            allowedVpp <= 100 && (
              <button
                type="button"
                className="btn mt-2"
                onClick={() => edit({ demand: { rippleVpp: Number(allowedVpp.toPrecision(3)) } })}
              >
                Allow {formatQuantity(allowedVpp, 'V')} p-p of ripple
              </button>
            )}
        </section>
        {picture && <Adds picture={picture} allowedV={budget?.railV ?? null} />}
      </div>
    </Room>
  );
}

/** What the supply adds: hum computed harmonic by harmonic, its own noise typical, ground wire and stray field by rules. */
function Adds({ picture, allowedV }: { picture: Picture; allowedV: number | null }) {
  const dc = picture.design.source.kind !== 'mains';
  const [apart, setApart] = useState('10 cm');
  const report = noiseReport(picture.design, picture.points.low);
  const strongest = [...report.lines].sort((a, b) => b.outputV - a.outputV).slice(0, 4);
  const centimetres = /^(\d+(?:[.,]\d+)?)\s*(?:cm)?$/.exec(apart.trim());
  const now = centimetres ? Number(centimetres[1]!.replace(',', '.')) : null;
  return (
    <section aria-label="What this supply adds" className="space-y-2">
      <h2 className="text-[20px] font-semibold">What this supply adds</h2>
      <FigureList label="Hum and noise" figures={report.figures} />
      <p className="text-[14px]">
        Strongest on the output at {termsOf(picture.design).low}:{' '}
        {strongest.map((l) => `${formatQuantity(l.hz, 'Hz')} ${formatQuantity(l.outputV, 'V')}`).join(', ')} RMS.
        {allowedV !== null &&
          (report.humV <= allowedV
            ? ` Together they stay ${formatQuantity(20 * Math.log10(allowedV / Math.max(report.humV, 1e-12)), 'dB')} under what the rail may carry.`
            : ` Together they are ${formatQuantity(20 * Math.log10(report.humV / allowedV), 'dB')} over what the rail may carry.`)}
      </p>
      <p className="text-[14px]">
        Star point: reservoir minus. Charging pulses of {formatQuantity(report.pulseA, 'A')} (computed) belong in the
        wires between {termsOf(picture.design).winding}, {dc ? 'diode' : 'rectifier'} and reservoir alone.
      </p>
      {!dc && (
        <p className="text-[14px]">
          <label>
            Stray field falls with the third power of distance (rule of thumb): a transformer now{' '}
            <input
              className="field !inline-block !w-[80px]"
              value={apart}
              onChange={(e) => setApart(e.target.value)}
              aria-invalid={now === null || now <= 0}
            />{' '}
            from the input
          </label>
          {now !== null && now > 0
            ? ` has its hum halved at ${strayDistance(now, 2).toFixed(1)} cm, cut to a tenth at ${strayDistance(now, 10).toFixed(1)} cm and to a hundredth at ${strayDistance(now, 100).toFixed(0)} cm; turning it a quarter often does as much.`
            : ': give the distance in centimetres, more than nothing.'}
        </p>
      )}
    </section>
  );
}

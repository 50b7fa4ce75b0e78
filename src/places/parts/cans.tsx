'use client';

import { useState } from 'react';
import type { Design } from '@/core/design/design';
import { neededV } from '@/core/study/point';
import { bankOptions, canLife, holdUpCapacitance, rippleAtLowFrequency } from '@/core/study/can-choice';
import { typicalRippleRating } from '@/core/parts/capacitor';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { parseQuantity, type Unit } from '@/core/quantity/parse';
import { windowOf } from '@/core/design/outputs';
import { ChoiceField } from '@/ui/choice-field';
import { useDesign, useEdit, useView } from '@/ui/session';
import { useSolved } from '@/ui/use-solved';
import { Alert } from '@/ui/alert';
import { TwoSides } from '@/ui/two-sides';
import type { RemoteSolver } from '@/workers/client';
import { goThrough } from '@/workers/go-through';
import { Burst } from './burst';

/** Every bank that could stand there, at the lowest and at the highest input. */
const askBanks = (solver: RemoteSolver, design: Design) =>
  goThrough(solver, 'variations', design, {
    items: bankOptions(design).flatMap(({ reservoir }) => [
      { condition: 'low' as const, patch: { reservoir } },
      { condition: 'high' as const, patch: { reservoir } },
    ]),
  });

/** Reservoir: one can or a bank, how long it lasts, and how much it takes to ride through a gap. */
export function Cans() {
  const design = useDesign();
  const edit = useEdit();
  const picture = useView((s) => s.picture);
  const [hours, setHours] = useState('2000');
  const [air, setAir] = useState('45');
  const [khz, setKhz] = useState('');
  const [gap, setGap] = useState('10 ms');
  // Its order is that of the banks of the design it is about.
  const { value, of, trouble } = useSolved(askBanks, { waitMs: 80 });
  const simulated = of?.reservoir === design.reservoir ? value?.parts : null;
  const options = bankOptions(design);
  const { reservoir } = design;

  const number = (text: string, unit: Unit, fallback: number) => {
    const read = parseQuantity(text, unit);
    return read.ok && read.value > 0 ? read.value : fallback;
  };
  const { gradeC } = reservoir;
  const lifeOf = (rmsA: number, ratingA: number) =>
    canLife({ hours: number(hours, '', 2000), gradeC }, number(air, '°C', 45), rmsA / ratingA);
  const years = (h: number) => {
    const n = Number((h / 8760).toPrecision(h < 2 * 8760 ? 2 : 1));
    return `${n} ${n === 1 ? 'year' : 'years'} of running`;
  };

  if (reservoir.capacitanceF <= 0) return <p className="text-quiet">This supply has no reservoir.</p>;

  const valley = picture?.points.nominal.reservoir.minV ?? null;
  const floor = neededV(design) ?? windowOf(design.demand).lowV;
  const gapS = parseQuantity(gap, 's');
  const hold =
    valley !== null && valley > floor && gapS.ok && gapS.value > 0
      ? holdUpCapacitance(design, gapS.value, valley, floor)
      : null;

  return (
    <div className="max-w-[1100px] space-y-5">
      <section aria-label="Bank or single can">
        <h2 className="text-[18px] font-semibold">One can or several</h2>
        {trouble && <Alert>{trouble}</Alert>}
        <div className="my-2 flex flex-wrap gap-3">
          <div className="w-[90px]">
            <ChoiceField
              label="Grade"
              value={String(gradeC)}
              options={[
                { value: '85', label: '85 °C' },
                { value: '105', label: '105 °C' },
              ]}
              onChange={(g: string) => edit({ reservoir: { gradeC: g === '105' ? 105 : 85 } })}
            />
          </div>
          <div className="self-end">
            <TwoSides question="grade" />
          </div>
          <div className="self-end">
            <TwoSides question="bank" />
          </div>
          <Small label="Hours at its grade" value={hours} onChange={setHours} unit="" />
          <Small label="Air around it" value={air} onChange={setAir} unit="°C" />
          <div className="w-[200px]">
            <ChoiceField
              label="Each stands for"
              value={reservoir.pair ? 'pair' : 'one'}
              options={[
                { value: 'one', label: 'one can' },
                { value: 'pair', label: 'two in series, balanced' },
              ]}
              onChange={(v: string) => edit({ reservoir: { pair: v === 'pair' } })}
            />
          </div>
        </div>
        {/* Fixed columns: what is simulated comes into them, nothing makes room for it. */}
        <div className="overflow-x-auto" role="region" aria-label="Ways to make it" tabIndex={0}>
          <table className="w-full min-w-[820px] table-fixed border-collapse text-[14px]">
            <thead className="text-[13px] text-quiet">
              <tr>
                <th className="w-[19%] px-2 text-left font-normal">Made of</th>
                <th className="px-2 text-right font-normal">ESR</th>
                <th className="px-2 text-right font-normal">Ripple rating</th>
                <th className="px-2 text-right font-normal">Ripple, simulated</th>
                <th className="px-2 text-right font-normal">Lowest valley</th>
                <th className="px-2 text-right font-normal">Core at</th>
                <th className="px-2 text-right font-normal">Lasts</th>
                <th className="px-2 text-right font-normal">Height</th>
                <th className="px-2 text-right font-normal">Price</th>
                <td className="w-[72px]" />
              </tr>
            </thead>
            <tbody>
              {options.map((o, n) => {
                const low = simulated?.[2 * n];
                const high = simulated?.[2 * n + 1];
                const rmsA = high?.ok ? high.reservoirRmsA : null;
                const life = rmsA === null ? null : lifeOf(rmsA, o.rippleA);
                const here = o.reservoir.cans === reservoir.cans;
                return (
                  <tr
                    key={o.reservoir.cans}
                    className={`h-[43px] border-t border-rule/60 ${here ? 'font-semibold' : ''}`}
                  >
                    <td className="px-2 py-1">
                      {o.reservoir.cans > 1 && `${o.reservoir.cans} × `}
                      {formatNominal(o.reservoir.capacitanceF, 'F')} {formatNominal(o.reservoir.ratedV, 'V')}
                      {reservoir.pair && ', pairs in series'}
                    </td>
                    <td className="px-2 text-right">{formatQuantity(o.esrOhm, 'ohm')}</td>
                    <td className="px-2 text-right">{formatQuantity(o.rippleA, 'A')}</td>
                    <td className={`px-2 text-right ${rmsA !== null && rmsA > o.rippleA ? 'text-fail' : ''}`}>
                      {rmsA === null ? '…' : formatQuantity(rmsA, 'A')}
                    </td>
                    <td className="px-2 text-right">{low?.ok ? formatQuantity(low.railMinV, 'V') : '…'}</td>
                    <td className="px-2 text-right">{life ? formatQuantity(life.coreC, '°C') : '…'}</td>
                    <td className="px-2 text-right">{life ? years(life.hours) : '…'}</td>
                    <td className="whitespace-nowrap px-2 text-right">
                      {o.heightMm} mm<span className="block text-[13px] text-quiet">{o.mounting}</span>
                    </td>
                    <td className="px-2 text-right">{formatQuantity(o.priceEur, 'EUR')}</td>
                    <td className="px-2 text-right">
                      {!here && (
                        <button
                          type="button"
                          className="btn !min-h-[26px]"
                          aria-label={`Take ${o.reservoir.cans} in parallel`}
                          onClick={() => edit({ reservoir: o.reservoir })}
                        >
                          Take
                        </button>
                      )}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
        <p className="mt-1 text-[13px] text-quiet">
          Ripple and valley are simulated; ESR, rating, height and price are typical for the size; life by the
          ten-kelvin rule. ESRs in parallel divide, they do not add.
        </p>
        <p className="mt-2 text-[14px]">
          <label>
            A data sheet gives the ripple current at 100 kHz:{' '}
            <input
              className="field !w-[100px]"
              value={khz}
              placeholder="e.g. 3 A"
              onChange={(e) => setKhz(e.target.value)}
            />
          </label>{' '}
          {khz.trim() !== '' &&
            (() => {
              const read = parseQuantity(khz, 'A');
              if (!read.ok) return <span className="text-fail">{read.error}</span>;
              const here = rippleAtLowFrequency(read.value, reservoir.capacitanceF);
              return (
                <>
                  at twice the mains frequency that is about <strong>{formatQuantity(here, 'A')}</strong> a can.{' '}
                  <button
                    type="button"
                    className="btn !min-h-[26px]"
                    onClick={() => edit({ reservoir: { rippleA: Number(here.toPrecision(3)) } })}
                  >
                    Enter it
                  </button>
                </>
              );
            })()}
          {khz.trim() === '' &&
            reservoir.rippleA === null &&
            ` Typical for this can: ${formatQuantity(typicalRippleRating(reservoir.capacitanceF, reservoir.ratedV), 'A')}.`}
        </p>
      </section>
      <section aria-label="Riding through a gap">
        <h2 className="text-[18px] font-semibold">Riding through a gap or a step</h2>
        <p className="mt-1 text-[14px]">
          <label>
            For how long <input className="field !w-[100px]" value={gap} onChange={(e) => setGap(e.target.value)} />
          </label>{' '}
          {!gapS.ok && <span className="text-fail">{gapS.error}</span>}
          {valley !== null && (
            <>
              from the valley at {formatQuantity(valley, 'V')} down to {formatQuantity(floor, 'V')}, the least that{' '}
              {design.regulator.kind === 'none' ? 'the load bears' : 'the regulator bears'}.
            </>
          )}
        </p>
        {valley !== null && valley <= floor && (
          <p className="text-fail">The valley already lies below that: no capacitance carries it through.</p>
        )}
        {hold && (
          <table className="mt-2 text-[14px]">
            <tbody>
              {(
                [
                  ['charge', 'by charge: C = I·t/ΔV', hold.chargeF],
                  ['energy', 'by energy: C = 2·P·t/(V₁² − V₂²)', hold.energyF],
                ] as const
              ).map(([school, how, farad]) => (
                <tr
                  key={school}
                  className={`border-t border-rule/60 ${hold.school === school ? 'font-semibold' : 'text-quiet'}`}
                >
                  <td className="py-1 pr-6">{how}</td>
                  <td className="pr-6 text-right">{formatQuantity(farad, 'F')}</td>
                  <td>{hold.school === school ? `right here: ${hold.why}` : ''}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
      <Burst />
    </div>
  );
}

function Small({
  label,
  value,
  onChange,
  unit,
}: {
  label: string;
  value: string;
  onChange(v: string): void;
  unit: Unit;
}) {
  const read = parseQuantity(value, unit);
  return (
    <label className="text-[13px] text-quiet">
      <span className="block">{label}</span>
      <input
        className="field !w-[130px] text-ink"
        value={value}
        aria-invalid={!read.ok}
        onChange={(e) => onChange(e.target.value)}
      />
      {!read.ok && <span className="block max-w-[160px] text-fail">{read.error}</span>}
    </label>
  );
}

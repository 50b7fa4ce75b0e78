'use client';

import { useState } from 'react';
import { regulatorModel } from '@/core/parts/regulators';
import { settingPair } from '@/core/parts/regulators/adjustable';
import { dropoutAt, type RegulatorModel } from '@/core/parts/regulators/model';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import { E12, SERIES, nearestInDecades, type SeriesName } from '@/core/quantity/preferred';
import { useDesign, useEdit, useView } from '@/ui/session';

export function Sums({ model }: { model: RegulatorModel }) {
  const design = useDesign();
  const { demand } = design;
  const railV = useView((v) => v.picture?.points.high.rail.meanV ?? null);
  const shortV = railV ?? model.outputV + dropoutAt(model, demand.outputA);
  return (
    <div className="grid grid-cols-2 gap-6 text-[14px]">
      <section>
        <h3 className="text-[16px] font-semibold">What sets it</h3>
        {model.settings.length === 0 && <p className="text-quiet">Nothing: its output is made in.</p>}
        <ul>
          {model.settings.map((s) => (
            <li key={s.label} className="border-t border-rule/60 py-1">
              <div className="flex justify-between gap-3">
                <span>{s.label}</span>
                <span className="font-semibold">{formatQuantity(s.value, s.unit)}</span>
              </div>
              <p className="text-[13px] text-quiet">
                <em>{s.expression}</em>
                {s.inputs.map((i) => `; ${i.label} ${formatQuantity(i.value, i.unit)}`).join('')}
              </p>
            </li>
          ))}
        </ul>
        {design.regulator.kind === 'adjustable' && <ResistorPicker />}
        <p className="mt-2 text-[13px] text-quiet">{model.spreadSource}</p>
      </section>
      <section>
        <h3 className="text-[16px] font-semibold">What it needs and bears</h3>
        <table className="w-full">
          <tbody>
            {[0, 0.25, 0.5, 1].map((share) => (
              <tr key={share} className="border-t border-rule/60">
                <td>Dropout at {formatQuantity(share * demand.outputA, 'A')}</td>
                <td className="text-right">{formatQuantity(dropoutAt(model, share * demand.outputA), 'V')} cold</td>
                <td className="text-right">
                  {formatQuantity(dropoutAt(model, share * demand.outputA, 100), 'V')} at 100 °C
                </td>
              </tr>
            ))}
            <Row label="Input bears" value={formatNominal(model.inputMaxV, 'V')} note={model.inputLimitSource} />
            <Row
              label="Rated, limit, shorted"
              note={`Shorted with ${formatQuantity(shortV, 'V')} across it.`}
              value={`${formatQuantity(model.ratedA, 'A')}, ${formatQuantity(model.limitA, 'A')}, ${formatQuantity(model.shortA(shortV), 'A')}`}
            />
            <Row label="Draws itself" value={formatQuantity(model.quiescentA, 'A')} />
            {model.minimumLoadA > model.dividerA && (
              <Row
                label="Least load outside"
                value={formatQuantity(model.minimumLoadA - model.dividerA, 'A')}
                note="Below it the output climbs."
              />
            )}
            <Row
              label="Rejection at 100 Hz, 1 kHz, 10 kHz"
              value={[100, 1000, 10000].map((hz) => `${model.rejectionDb(hz).toFixed(0)} dB`).join(', ')}
            />
            <Row label="Noise, 10 Hz to 100 kHz" value={`${formatQuantity(model.noiseV, 'V')} RMS`} />
            <Row label="Leads" value={model.pass.pins} />
          </tbody>
        </table>
        <h3 className="mt-3 text-[16px] font-semibold">Small parts around it</h3>
        <ul>
          {model.small.map((p) => (
            <li key={p.what} className="border-t border-rule/60 py-1">
              {p.what}
              {p.value !== null && <strong className="font-semibold"> {formatNominal(p.value, p.unit)}</strong>}
              <span className="text-quiet">: {p.why}</span>
            </li>
          ))}
        </ul>
        <p className="mt-1 text-[13px] text-quiet">{model.capacitors}</p>
        <Indicator volts={model.outputV} />
      </section>
    </div>
  );
}

function Row({ label, value, note }: { label: string; value: string; note?: string }) {
  return (
    <tr className="border-t border-rule/60 align-top">
      <td>
        {label}
        {note && <span className="block text-[13px] text-quiet">{note}</span>}
      </td>
      <td colSpan={2} className="text-right">
        {value}
      </td>
    </tr>
  );
}

/** Picks R1 and R2 from a series for an output, and prints the error that remains. */
function ResistorPicker() {
  const design = useDesign();
  const edit = useEdit();
  const { regulator } = design;
  const [text, setText] = useState(
    formatNominal(Number((regulatorModel(regulator)?.outputV ?? 5).toPrecision(3)), 'V'),
  );
  if (regulator.kind !== 'adjustable') return null;
  const read = parseQuantity(text, 'V');
  const asked = read.ok ? read.value : null;
  return (
    <div className="mt-2 rounded border border-rule p-2">
      <label className="flex items-center gap-2">
        Resistors for
        <input
          className="field !w-[90px]"
          value={text}
          onChange={(e) => setText(e.target.value)}
          aria-invalid={!read.ok}
        />
      </label>
      {!read.ok && <p className="text-fail">{read.error}</p>}
      {asked !== null && asked < 1.25 && (
        <p className="text-fail">The lowest it can give is its reference, 1.25 V: not zero.</p>
      )}
      {asked !== null && asked >= 1.25 && (
        <table className="mt-1 w-full">
          <tbody>
            {(Object.keys(SERIES) as SeriesName[]).map((name) => {
              const pair = settingPair(asked, name);
              return (
                <tr key={name} className="border-t border-rule/60">
                  <td>{name}</td>
                  <td>
                    {formatNominal(pair.r1Ohm, 'ohm')} and {formatNominal(pair.r2Ohm, 'ohm')}
                  </td>
                  <td className="text-right">{formatQuantity(pair.outputV, 'V', 4)}</td>
                  <td className="text-right">
                    {pair.errorPct < 0 ? '−' : '+'}
                    {Math.abs(pair.errorPct).toFixed(2)} %
                  </td>
                  <td className="text-right">
                    <button
                      type="button"
                      className="btn !min-h-[26px]"
                      aria-label={`Take ${name}`}
                      onClick={() =>
                        edit({ regulator: { ...regulator, r1Ohm: pair.r1Ohm, r2Ohm: pair.r2Ohm, potOhm: null } })
                      }
                    >
                      Take
                    </button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </div>
  );
}

const LEDS = [
  { colour: 'red', forwardV: 1.9 },
  { colour: 'green', forwardV: 2.1 },
  { colour: 'blue or white', forwardV: 3.1 },
] as const;

/** The resistor of an indicator on the output, and what a diode against swapped leads would cost. */
function Indicator({ volts }: { volts: number }) {
  const [text, setText] = useState('5 mA');
  const read = parseQuantity(text, 'A');
  const amps = read.ok && read.value > 0 ? read.value : null;
  return (
    <div className="mt-3">
      <h3 className="text-[16px] font-semibold">An indicator on {formatQuantity(volts, 'V')}</h3>
      <label className="flex items-center gap-2">
        at
        <input
          className="field !w-[90px]"
          value={text}
          onChange={(e) => setText(e.target.value)}
          aria-invalid={amps === null}
        />
      </label>
      {amps === null ? (
        <p className="text-fail">{read.ok ? 'A lamp needs some current: 2 to 10 mA for an LED.' : read.error}</p>
      ) : (
        <ul>
          {LEDS.filter((l) => l.forwardV < volts).map(({ colour, forwardV }) => {
            const ohm = nearestInDecades((volts - forwardV) / amps, E12);
            const drawn = (volts - forwardV) / ohm;
            return (
              <li key={colour} className="border-t border-rule/60">
                {colour}: {formatNominal(ohm, 'ohm')}, {formatQuantity(drawn, 'A')},{' '}
                {formatQuantity(drawn ** 2 * ohm, 'W')} in the resistor
              </li>
            );
          })}
        </ul>
      )}
      <p className="mt-1 text-[13px] text-quiet">
        A diode against swapped leads costs about 0.7 V (silicon) or 0.3 V (Schottky) of headroom, or of output behind
        the regulator.
      </p>
    </div>
  );
}

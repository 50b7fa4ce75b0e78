'use client';

import { useState, type FormEvent } from 'react';
import { asksOf, commandFault, type InstrumentKind, type OwnCommands } from '@/core/instrument/commands';
import { formatQuantity } from '@/core/quantity/format';
import type { Unit } from '@/core/quantity/parse';
import { Alert } from '@/ui/alert';
import { enterInstrument, forgetInstrument, readInstrument, type EnteredInstrument } from '@/ui/instruments';

/** Where many an instrument listens. */
const USUAL_PORT = 5025;

interface Props {
  kind: InstrumentKind;
  name: string;
  instrument: EnteredInstrument | undefined;
  onChange(): Promise<void>;
}

/** One instrument: its address, whether it is really yours, its words, and what it reads now. */
export function Entered({ kind, name, instrument, onChange }: Props) {
  const [address, setAddress] = useState(instrument ? addressText(instrument) : '');
  const [own, setOwn] = useState<OwnCommands>(instrument?.commands ?? {});
  const [mine, setMine] = useState(instrument !== undefined);
  const [fault, setFault] = useState<string | null>(null);
  const [words, setWords] = useState(false);

  async function enter(event: FormEvent) {
    event.preventDefault();
    const at = /^\[?([^\]]*?)\]?(?::(\d+))?$/.exec(
      address.trim().includes('::') && !address.includes(']') ? `[${address.trim()}]` : address.trim(),
    );
    const answer = await enterInstrument(kind, {
      host: at?.[1] ?? address,
      port: at?.[2] ? Number(at[2]) : USUAL_PORT,
      commands: own,
      confirmed: mine,
    });
    setFault(answer.ok ? null : answer.refusal.sentence);
    if (answer.ok) await onChange();
  }

  const state = !instrument ? 'not entered' : (instrument.fault ?? instrument.identity ?? '');
  return (
    <li className="border-t border-rule py-3" data-testid={`instrument-${kind}`}>
      <form onSubmit={(e) => void enter(e)} aria-label={name} className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <div className="w-[230px] min-w-0">
          <h2 className="text-[16px] font-semibold">{name}</h2>
          <p className={`break-words text-[13px] leading-snug ${instrument?.fault ? 'text-fail' : 'text-quiet'}`}>
            {instrument && (
              <span className={instrument.fault ? '' : 'text-volt'}>{instrument.fault ? '✕ ' : '● '}</span>
            )}
            {state}
          </p>
        </div>
        <label className="w-[210px] text-[14px]">
          Address
          <input
            className="field"
            placeholder={`192.168.1.40:${USUAL_PORT}`}
            value={address}
            autoComplete="off"
            spellCheck={false}
            onChange={(e) => {
              setAddress(e.target.value);
              setMine(false);
            }}
          />
        </label>
        <label className="flex min-h-[34px] items-center gap-2 text-[14.5px]">
          <input type="checkbox" className="accent-volt" checked={mine} onChange={(e) => setMine(e.target.checked)} />
          It is mine
        </label>
        <button type="submit" className="btn">
          {instrument ? 'Enter it again' : 'Enter it'}
        </button>
        {instrument && (
          <button type="button" className="btn" onClick={() => void forgetInstrument(kind).then(onChange)}>
            Forget it
          </button>
        )}
        <button type="button" className="btn" aria-expanded={words} onClick={() => setWords(!words)}>
          Its words
        </button>
      </form>
      {fault && <Alert className="mt-1 text-[14px]">{fault}</Alert>}
      {words && <Words kind={kind} own={own} onOwn={setOwn} />}
      {instrument && !instrument.fault && <Readings kind={kind} />}
    </li>
  );
}

const addressText = ({ host, port }: EnteredInstrument) =>
  host.includes(':') ? `[${host}]:${port}` : `${host}:${port}`;

/** The table of what is sent for what; a line that cannot be used says so and is not taken. */
function Words({ kind, own, onOwn }: { kind: InstrumentKind; own: OwnCommands; onOwn(own: OwnCommands): void }) {
  return (
    <div className="overflow-x-auto" role="region" aria-label="Its words" tabIndex={0}>
      <table className="mt-2 text-[14px]">
        <thead className="text-left text-[13px] text-quiet">
          <tr>
            <th className="pr-4 font-normal">What is wanted</th>
            <th className="font-normal">What is sent</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {asksOf(kind).map(([ask, { words, usual }]) => {
            const line = own[ask] ?? usual;
            const fault = commandFault(kind, ask, line);
            return (
              <tr key={ask}>
                <td className="pr-4">{words}</td>
                <td>
                  <input
                    className="field !w-[260px] font-mono text-[13px]"
                    aria-label={`${words}: what is sent`}
                    aria-invalid={fault !== null}
                    value={line}
                    spellCheck={false}
                    onChange={(e) => {
                      const { [ask]: _old, ...rest } = own;
                      void _old;
                      onOwn(e.target.value === usual ? rest : { ...rest, [ask]: e.target.value });
                    }}
                  />
                </td>
                <td className="pl-3 text-[13px]">
                  {fault ? (
                    <span className="text-fail">{fault}</span>
                  ) : (
                    <span className="text-quiet">
                      {own[ask] === undefined ? '' : `in place of ${usual}; enter it again`}
                    </span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

const UNITS: Readonly<Record<string, Unit>> = {
  volts: 'V',
  acVolts: 'V',
  amps: 'A',
  drawn: 'A',
  ohms: 'ohm',
  celsius: '°C',
  read: 'V',
};

/** What it reads now, asked one by one. */
function Readings({ kind }: { kind: InstrumentKind }) {
  const [read, setRead] = useState<Record<string, string>>({});
  const [fault, setFault] = useState<string | null>(null);
  const asks = asksOf(kind).filter(([ask, a]) => a.answers === 'number' && UNITS[ask]);
  if (asks.length === 0) return null;
  return (
    <div className="mt-2 flex flex-wrap items-baseline gap-x-5 gap-y-1">
      {asks.map(([ask, { words }]) => (
        <span key={ask} className="flex items-baseline gap-2 text-[14.5px]">
          <button
            type="button"
            className="btn !min-h-[26px] !px-2 text-[13.5px]"
            onClick={() =>
              void readInstrument(kind, ask).then((answer) => {
                setFault(answer.ok ? null : answer.refusal.sentence);
                setRead((before) => ({
                  ...before,
                  [ask]: answer.ok ? formatQuantity(answer.value.value, UNITS[ask]!, 4) : '–',
                }));
              })
            }
          >
            {words}
          </button>
          <strong aria-live="polite">{read[ask] ?? ''}</strong>
        </span>
      ))}
      {fault && <Alert className="w-full text-[13.5px]">{fault}</Alert>}
    </div>
  );
}

'use client';

import { useCallback, useEffect, useState } from 'react';
import type { InstrumentKind, OwnCommands } from '@/core/instrument/commands';
import type { Playing } from '@/server/instruments/hub';
import { askServer, json, type Asked } from './api';

/** An instrument that was entered, and what it said of itself just now. */
export interface EnteredInstrument {
  kind: InstrumentKind;
  host: string;
  port: number;
  commands: OwnCommands;
  /** Whether it is one of this program's own stand-ins. */
  standIn: boolean;
  identity?: string;
  simulated?: boolean;
  /** Why it said nothing. */
  fault?: string;
}

export interface InstrumentBench {
  instruments: EnteredInstrument[];
  playing: Playing | null;
  sweeping: boolean;
  /** Whether this is the demo, which brings its instruments along. */
  demo: boolean;
}

/** How instruments are called. */
export const INSTRUMENT_WORDS: Readonly<Record<InstrumentKind, string>> = {
  meter: 'Meter',
  load: 'Electronic load',
  scope: 'Scope',
  source: 'Mains source',
};

const fetchInstruments = () => askServer<InstrumentBench>('/api/instruments');

/** The instruments on the network as the server knows them; asked again with `look`. */
export function useInstruments() {
  const [bench, setBench] = useState<InstrumentBench | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const take = useCallback((answer: Asked<InstrumentBench>) => {
    if (answer.ok) setBench(answer.value);
    setTrouble(answer.ok ? null : answer.refusal.sentence);
  }, []);
  const look = useCallback(() => fetchInstruments().then(take), [take]);
  useEffect(() => {
    void fetchInstruments().then(take);
  }, [take]);
  return { bench, trouble, look };
}

export const enterInstrument = (
  kind: InstrumentKind,
  body: { host: string; port: number; commands: OwnCommands; confirmed: boolean },
) => askServer(`/api/instruments/${kind}`, json('PUT', body));
export const forgetInstrument = (kind: InstrumentKind) => askServer(`/api/instruments/${kind}`, { method: 'DELETE' });
export const readInstrument = (kind: InstrumentKind, ask: string): Promise<Asked<{ value: number }>> =>
  askServer(`/api/instruments/${kind}/ask`, json('POST', { ask }));
export const playStandIns = (body: { design: unknown; seed: number; faulty: boolean; speed: number }) =>
  askServer<Playing>('/api/instruments/stand-ins', json('POST', body));
export const endStandIns = () => askServer('/api/instruments/stand-ins', { method: 'DELETE' });

/** Said wherever a reading comes from a stand-in. */
export function simulatedWords({ playing, instruments }: InstrumentBench): string | null {
  if (!instruments.some((i) => i.simulated)) return null;
  return playing
    ? `Simulated: stand-ins around a build of ‘${playing.name}’, seed ${playing.seed}${playing.faulty ? ', something is wrong with it' : ''}${playing.speed > 1 ? `, warming ${playing.speed} times as fast` : ''}.`
    : 'Simulated: at least one of these instruments is a stand-in.';
}

/** One trace of the scope that is entered. */
export const traceFromScope = (
  secondsPerDivision: number,
): Promise<Asked<{ t: number[]; values: number[]; simulated: boolean }>> =>
  askServer('/api/instruments/trace', json('POST', { secondsPerDivision }));

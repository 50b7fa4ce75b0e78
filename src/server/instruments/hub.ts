import { fork, type ChildProcess } from 'node:child_process';
import { INSTRUMENT_KINDS, type InstrumentKind } from '@/core/instrument/commands';
import type { SweepEnd, SweepPlan } from '@/core/instrument/sweep';
import type { Design } from '@/core/design/design';
import { bundledFile } from '../bundled-file';
import { Conversation, isSimulated } from './conversation';
import { LineFault, type Said } from './line';
import type { Ports } from './serve-stand-ins';
import type { StandInOrder } from './stand-in-process';
import type { InstrumentStore, KeptInstrument } from './store';
import { STOP } from './sweep-words';
import type { SweepNews, SweepOrder } from './sweep-process';

const START_MS = 20_000;
/** Lines that are remembered. */
const LOG_LINES = 4000;

/** What the stand-ins play, without what is hidden. */
export interface Playing {
  name: string;
  seed: number;
  faulty: boolean;
  speed: number;
}

interface Hub {
  said: Said[];
  standIns: { child: ChildProcess; playing: Playing; ports: Partial<Ports> } | null;
  sweep: ChildProcess | null;
}

// A module of the server can be loaded twice; what is running is one.
const held = globalThis as { emberRailInstruments?: Hub };
const hub: Hub = (held.emberRailInstruments ??= { said: [], standIns: null, sweep: null });

const log = (said: Said) => {
  hub.said.push(said);
  if (hub.said.length > LOG_LINES) hub.said.splice(0, hub.said.length - LOG_LINES);
};

/** Every line that went to an instrument or came from one, the oldest first. */
export const conversationLog = (): readonly Said[] => hub.said;
export const playing = (): Playing | null => hub.standIns?.playing ?? null;
export const sweeping = (): boolean => hub.sweep !== null;

/** An instrument that can be spoken to now. */
export interface Reachable extends KeptInstrument {
  standIn: boolean;
}

/** The instruments as they stand now: stand-ins, while they play, in place of those that were entered. */
export function reachable(store: InstrumentStore): Reachable[] {
  const entered = store.list();
  return INSTRUMENT_KINDS.flatMap((kind): Reachable[] => {
    const port = hub.standIns?.ports[kind];
    if (port !== undefined) return [{ kind, host: '127.0.0.1', port, commands: {}, confirmedAt: '', standIn: true }];
    const own = entered.find((i) => i.kind === kind);
    return own ? [{ ...own, standIn: false }] : [];
  });
}

export const reachableOf = (store: InstrumentStore, kind: InstrumentKind): Reachable | null =>
  reachable(store).find((i) => i.kind === kind) ?? null;

/** The stand-in of a kind gives way to an instrument of the person's, or to none. */
export function giveWay(kind: InstrumentKind): void {
  if (hub.standIns) delete hub.standIns.ports[kind];
}

/** Talks to a kept instrument and hangs up. @throws LineFault */
export async function withInstrument<K extends InstrumentKind, T>(
  kind: K,
  kept: KeptInstrument,
  talk: (instrument: Conversation<K>) => Promise<T>,
): Promise<T> {
  const instrument = new Conversation(kind, kept, kept.commands, log);
  try {
    return await talk(instrument);
  } finally {
    instrument.close();
  }
}

/** Starts simulated instruments around a build of a design in place of those that played before. */
export async function playStandIns(order: Omit<StandInOrder, 'port'>): Promise<Playing | { fault: string }> {
  stopStandIns();
  const child = fork(/* turbopackIgnore: true */ bundledFile('stand-in-process'), {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  const ports = await new Promise<Ports | string>((resolve) => {
    const timer = setTimeout(() => resolve('The stand-ins did not start.'), START_MS);
    child.once('message', (told: { ports?: Ports; fault?: string }) => {
      clearTimeout(timer);
      resolve(told.ports ?? told.fault ?? 'The stand-ins did not start.');
    });
    child.once('exit', () => resolve('The stand-ins ended at once.'));
    child.send({ ...order, port: 0 });
  });
  if (typeof ports === 'string') {
    child.kill();
    return { fault: ports };
  }
  const { name } = order.design;
  const play = { name, seed: order.seed, faulty: order.fault !== 'none', speed: order.speed };
  hub.standIns = { child, playing: play, ports };
  child.once('exit', () => {
    if (hub.standIns?.child === child) hub.standIns = null;
  });
  return play;
}

/** Ends the stand-ins: what was entered is there again. */
export function stopStandIns(): void {
  hub.standIns?.child.kill();
  hub.standIns = null;
}

/** What is asked to begin a sweep. */
export interface SweepAsk {
  plan: SweepPlan;
  metal: boolean;
  design: Design;
}

/**
 * Runs a sweep in a process of its own and passes on what it tells. Whoever stops listening stops it; if its process dies,
 * the load is switched off from here.
 */
export function startSweep(store: InstrumentStore, { plan, metal, design }: SweepAsk): ReadableStream<Uint8Array> {
  const of = (kind: InstrumentKind) => reachableOf(store, kind);
  const load = of('load')!;
  const order: SweepOrder = {
    plan,
    metal,
    load,
    meter: of('meter'),
    scope: of('scope'),
    source: of('source'),
    frequencyHz: design.mains.frequencyHz,
  };
  const child = fork(/* turbopackIgnore: true */ bundledFile('sweep-process'), {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  hub.sweep = child;
  const encoder = new TextEncoder();
  let ended = false;
  return new ReadableStream<Uint8Array>({
    start(controller) {
      const pass = (news: object) => {
        try {
          controller.enqueue(encoder.encode(`${JSON.stringify(news)}\n`));
        } catch {
          // Nobody listens any more.
        }
      };
      const close = () => {
        if (hub.sweep === child) hub.sweep = null;
        try {
          controller.close();
        } catch {
          // It was closed from the other side.
        }
      };
      child.on('message', (news: SweepNews) => {
        if ('said' in news) log(news.said);
        else pass(news);
        if ('end' in news) {
          ended = true;
          close();
        }
      });
      child.once('exit', () => {
        if (ended) return;
        void loadOff(load).then((offFault) => {
          const end: SweepEnd = {
            why: 'The process that ran the sweep ended in the middle of it.',
            complete: false,
            off: offFault === null,
            ...(offFault === null ? {} : { offFault }),
          };
          pass({ end });
          close();
        });
      });
      child.send(order);
    },
    cancel() {
      // It switches the load off when nobody is there any more.
      if (child.connected) child.disconnect();
      if (hub.sweep === child) hub.sweep = null;
    },
  });
}

/** Asks the sweep that runs to end: it switches the load off and tells how it ended. @returns whether one ran */
export function stopSweep(): boolean {
  if (!hub.sweep) return false;
  // A message waits until the process can listen; a signal would end one that has only just begun.
  if (hub.sweep.connected) hub.sweep.send(STOP);
  return true;
}

/** @returns why it is not known that the load is off; null where it said so */
async function loadOff(load: KeptInstrument): Promise<string | null> {
  try {
    const on = await withInstrument('load', load, async (i) => {
      await i.tell('off');
      return i.isOn('isOn');
    });
    return on ? 'The load says that it is still on: switch it off by hand.' : null;
  } catch (error) {
    return error instanceof LineFault ? error.message : 'The load could not be asked.';
  }
}

/** Who an instrument says it is, and whether it is simulated; a sentence where it says nothing. */
export async function identify(
  kept: KeptInstrument,
): Promise<{ identity: string; simulated: boolean } | { fault: string }> {
  try {
    const identity = await withInstrument(kept.kind, kept, (i) => i.raw('*IDN?'));
    return { identity: identity.slice(0, 200), simulated: isSimulated(identity) };
  } catch (error) {
    return { fault: error instanceof Error ? error.message : String(error) };
  }
}

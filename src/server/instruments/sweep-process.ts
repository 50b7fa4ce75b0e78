import type { OwnCommands } from '@/core/instrument/commands';
import { runSweep, type SweepBench, type SweepPlan } from '@/core/instrument/sweep';
import type { Address } from './address';
import { Conversation } from './conversation';
import { LineFault, type Said } from './line';
import { STOP } from './sweep-words';

type Reached = Address & { commands: OwnCommands };

/** What the process is started with: the plan, and where the instruments are. */
export interface SweepOrder {
  plan: SweepPlan;
  load: Reached;
  meter: Reached | null;
  scope: Reached | null;
  source: Reached | null;
  /** Whether the meter has a thermometer at the metal. */
  metal: boolean;
  frequencyHz: number;
}

/** What it tells while it runs, as it comes. */
export type SweepNews = { row: unknown } | { said: Said } | { end: unknown };

/** A trace holds so many cycles of the mains. */
const CYCLES = 5;
const DIVISIONS = 10;

function benchOf(order: SweepOrder, log: (said: Said) => void): SweepBench & { close(): void } {
  const { plan, metal } = order;
  const load = new Conversation('load', order.load, order.load.commands, log);
  const meter = order.meter && new Conversation('meter', order.meter, order.meter.commands, log);
  const scope = order.scope && new Conversation('scope', order.scope, order.scope.commands, log);
  const source = order.source && new Conversation('source', order.source, order.source.commands, log);
  let ready = false;
  return {
    loadAmps: async (amps) => {
      if (!ready) {
        await load.tell('mode');
        if (scope) await scope.tell('time', CYCLES / order.frequencyHz / DIVISIONS);
      }
      ready = true;
      await load.tell('amps', amps);
      await load.accepted();
    },
    loadOn: async () => {
      await load.tell('on');
      await load.accepted();
    },
    loadOff: async () => {
      await load.tell('off');
      if (await load.isOn('isOn')) throw new LineFault('The load says that it is still on: switch it off by hand.');
    },
    loadReads: async () => ({ volts: await load.number('volts'), amps: await load.number('drawn') }),
    meterV: meter && plan.meterOn !== 'none' ? () => meter.number('volts') : null,
    rippleV: scope
      ? async () => {
          await scope.tell('acquire');
          const points = await scope.numbers('trace');
          return Math.max(...points) - Math.min(...points);
        }
      : null,
    metalC: meter && metal ? () => meter.number('celsius') : null,
    sourceV: source ? () => source.number('read') : null,
    wait: (seconds, stop) =>
      new Promise((resolve) => {
        const timer = setTimeout(resolve, 1000 * seconds);
        stop.addEventListener('abort', () => {
          clearTimeout(timer);
          resolve();
        });
      }),
    now: () => new Date(),
    simulated: () => load.isSimulated(),
    close: () => [load, meter, scope, source].forEach((i) => i?.close()),
  };
}

// The load is looked after in a process of its own: whatever becomes of the page or the server, this one switches it off.
if (process.send) {
  const stop = new AbortController();
  const tell = (news: SweepNews) => {
    if (process.connected) process.send!(news);
  };
  process.once('message', (order) => {
    // Whoever asked may be gone before this process could listen.
    if (!process.connected) stop.abort();
    const bench = benchOf(order as SweepOrder, (said) => tell({ said }));
    void runSweep(bench, (order as SweepOrder).plan, stop.signal, (row) => tell({ row })).then((end) => {
      tell({ end });
      bench.close();
      // Long enough for the last word to be read.
      setTimeout(() => process.exit(0), 100);
    });
  });
  process.on('message', (said) => said === STOP && stop.abort());
  process.on('disconnect', () => stop.abort());
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => stop.abort());
}

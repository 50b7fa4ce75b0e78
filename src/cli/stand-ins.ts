import { parseArgs } from 'node:util';
import type { BenchFault } from '@/core/bench/fault-words';
import { faultsToHide } from '@/core/bench/simulated-build';
import { demoDesigns } from '@/core/design/demo-designs';
import type { Design } from '@/core/design/design';
import { startStandIns } from '@/server/instruments/stand-in-process';
import { designIn } from './design-in';

const USAGE = `Simulated instruments around a build of a design, on this machine.
Usage: npm run stand-ins -- [FILE] [--seed N] [--fault NAME] [--speed N] [--port N]
  FILE     a design exported as JSON; the demo's dome motor supply where left out
  --seed   which build of it: tolerances by chance, 1 where left out
  --fault  none, or one this design can have
  --speed  times as fast as copper and metal really warm, 1 to 600
  --port   of the meter; load, scope and source follow; 5101 where left out`;

/** Ends with a sentence. */
function refuse(sentence: string): never {
  process.stderr.write(`${sentence}\n`);
  process.exit(2);
}

function options() {
  try {
    return parseArgs({
      allowPositionals: true,
      options: {
        seed: { type: 'string', default: '1' },
        fault: { type: 'string', default: 'none' },
        speed: { type: 'string', default: '1' },
        port: { type: 'string', default: '5101' },
        help: { type: 'boolean', default: false },
      },
    });
  } catch (error) {
    return refuse(`${error instanceof Error ? error.message : String(error)}\n\n${USAGE}`);
  }
}

function asked(file: string | undefined): Design {
  if (file === undefined) return demoDesigns().find((d) => d.name.startsWith('Dome'))!;
  const design = designIn(file);
  return typeof design === 'string' ? refuse(design) : design;
}

function whole(name: string, text: string, least: number, most: number): number {
  const value = Number(text);
  return Number.isInteger(value) && value >= least && value <= most
    ? value
    : refuse(`--${name} has to be a whole number from ${least} to ${most}, not '${text}'.`);
}

const { values, positionals } = options();
if (values.help) {
  process.stdout.write(`${USAGE}\n`);
} else {
  const design = asked(positionals[0]);
  const faults = faultsToHide(design);
  if (!faults.includes(values.fault as (typeof faults)[number]))
    refuse(`--fault has to be one of ${faults.join(', ')}, not '${values.fault}'.`);
  const order = {
    design,
    seed: whole('seed', values.seed, 1, 999_999),
    fault: values.fault as BenchFault,
    speed: whole('speed', values.speed, 1, 600),
    port: whole('port', values.port, 1, 65532),
  };
  startStandIns(order).then(
    ({ ports }) => {
      process.stdout.write(`Simulated: a build of '${design.name}', seed ${order.seed}.\n`);
      for (const [kind, port] of Object.entries(ports)) process.stdout.write(`${kind.padEnd(7)} 127.0.0.1:${port}\n`);
    },
    (error: unknown) => refuse(`Not started: ${error instanceof Error ? error.message : String(error)}`),
  );
}

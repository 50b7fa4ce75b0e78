import { hide, SimulatedBuild } from '@/core/bench/simulated-build';
import type { BenchFault } from '@/core/bench/fault-words';
import { mainsVolts } from '@/core/circuit/feed';
import type { Design } from '@/core/design/design';
import { StandIns } from '@/core/instrument/stand-in';
import { serveStandIns } from './serve-stand-ins';

/** What the process is started with. */
export interface StandInOrder {
  design: Design;
  seed: number;
  fault: BenchFault;
  speed: number;
  port: number;
}

/** Begins four simulated instruments around a build of a design, on this machine. @throws Error where a port is taken */
export function startStandIns({ design, seed, fault, speed, port }: StandInOrder) {
  const build = new SimulatedBuild(design, hide(design, seed, fault));
  const standIns = new StandIns(build, mainsVolts(design, 'nominal'), () => performance.now() / 1000, speed);
  return serveStandIns(standIns, port);
}

// As a child of the server: one order, one answer, and gone with whoever started it.
if (process.send) {
  process.once('message', (order) => {
    startStandIns(order as StandInOrder).then(
      ({ ports }) => process.send!({ ports }),
      (error: unknown) => {
        process.send!({ fault: error instanceof Error ? error.message : String(error) });
        process.exit(1);
      },
    );
  });
  process.on('disconnect', () => process.exit(0));
}

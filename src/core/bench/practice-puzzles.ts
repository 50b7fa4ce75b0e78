import type { Design, Patch } from '@/core/design/design';
import { placeWords, type BenchFault } from './fault-words';
import type { Hidden } from './simulated-build';

/** A supply that stands on the practice bench: what is told of it, and what is not. */
export interface Puzzle {
  id: string;
  title: string;
  story: string;
  design: Design;
  hidden: Hidden;
  /** What is to be named: the fault, or that the design itself was chosen wrongly where nothing is broken. */
  truth: BenchFault;
  /** What fails of the design itself in its worst circumstances, in sentences, whatever is broken in the build. */
  fails: string[];
}

/** What is told of a puzzle before it is begun. */
export type PuzzleHead = Pick<Puzzle, 'id' | 'title' | 'story'>;

export interface SetPuzzle extends PuzzleHead {
  /** Its supply among the demo's, by the beginning of its name. */
  supply: string;
  seed: number;
  /** What is broken in it; nothing where it was chosen wrongly instead. */
  fault: BenchFault;
  /** How its drawing differs from the demo's: a part chosen wrongly. */
  drawn?: Patch;
}

/** Supplies of the school, each with what somebody said when it was brought. */
export const SET: readonly SetPuzzle[] = [
  {
    id: 'chime',
    title: 'The chime that hums',
    supply: 'Slave-clock',
    seed: 3,
    fault: 'diode-open',
    story: 'Since the lightning in March the hall chime hums, and on cold mornings two of the clocks skip a minute.',
  },
  {
    id: 'dome-slow',
    title: 'The dome turns slowly',
    supply: 'Dome',
    seed: 4,
    fault: 'reservoir-dry',
    story: 'It was built eleven summers ago under the dome’s tin roof. The motor growls, and stops against the wind.',
  },
  {
    id: 'pen',
    title: 'A pen that sags',
    supply: 'Tide-gauge',
    seed: 5,
    fault: 'source-weak',
    story: 'The trace droops whenever the pen motor runs. The terminal block beside the pier has turned green.',
  },
  {
    id: 'drum',
    title: 'A drum full of grass',
    supply: 'Drum',
    seed: 6,
    fault: 'reservoir-open',
    story: 'Dropped on the stairs on its way to the cellar. Since then every line of the seismograph is a hedge.',
  },
  {
    id: 'spare',
    title: 'The spare from the attic',
    supply: 'Dome',
    seed: 7,
    fault: 'source-low',
    story:
      'A pupil wired the spare supply of the dome after a photograph. It works, but the controller complains of undervoltage.',
  },
  {
    id: 'clock-hot',
    title: 'Clocks that smell',
    supply: 'Slave-clock',
    seed: 8,
    fault: 'output-top',
    story: 'After a new board was soldered in, the caretaker pulled the plug because the clocks smelt warm.',
  },
  {
    id: 'gauge-warm',
    title: 'Warm for no reason',
    supply: 'Tide-gauge',
    seed: 9,
    fault: 'extra-load',
    story: 'The recorder writes as it should, but its heatsink is too hot to touch, and was not last year.',
  },
  {
    id: 'drum-dead',
    title: 'One silent amplifier',
    supply: 'Drum',
    seed: 10,
    fault: 'output-dead',
    story: 'Lamp on, transformer humming, amplifier silent. Somebody had the probes in it while it was on.',
  },
  {
    id: 'bang',
    title: 'It went bang once',
    supply: 'Slave-clock',
    seed: 11,
    fault: 'diode-short',
    story: 'The fuse was replaced twice. The third one is a size larger and holds; the transformer growls.',
  },
  {
    id: 'motor-fast',
    title: 'The dome that hurries',
    supply: 'Dome',
    seed: 12,
    fault: 'source-high',
    story: 'Back from the rewinder. The dome is faster than it ever was, and the controller trips when it brakes.',
  },
  {
    id: 'pen-through',
    title: 'Ink everywhere',
    supply: 'Tide-gauge',
    seed: 13,
    fault: 'output-through',
    story: 'The pen slams against its stop as soon as the recorder is switched on.',
  },
  {
    id: 'nothing',
    title: 'The worrier',
    supply: 'Slave-clock',
    seed: 14,
    fault: 'none',
    story: 'The new caretaker is sure that it hums more than it used to. He would like it looked at.',
  },
  {
    id: 'winter',
    title: 'Late on winter evenings',
    supply: 'Slave-clock',
    seed: 15,
    fault: 'none',
    drawn: { transformer: { ratedV: 20 } },
    story:
      'When every oven on the island is on, the clocks lose a minute. The electrician came by day and found nothing.',
  },
  {
    id: 'thumb',
    title: 'A burnt thumb',
    supply: 'Physics room bench supply, first try',
    seed: 16,
    fault: 'none',
    story: 'Fine at twenty-five volts all term. At one volt and full current it smelt, and somebody has burnt a thumb.',
  },
];

export const setPuzzles = (): PuzzleHead[] => SET.map(({ id, title, story }) => ({ id, title, story }));

/** Something that can be read or checked on the practice bench. */
export interface PracticeChoice {
  id: string;
  label: string;
  minutes: number;
  powered: boolean;
  caution: string | null;
}

/** What a reading said. */
export interface PracticeReading {
  id: string;
  label: string;
  minutes: number;
  powered: boolean;
  /** In words, with its number. */
  said: string;
  /** What was read, in its unit; null of a check in words. */
  value: number | null;
}

/** A step of the finder's own way through a puzzle. */
export interface FinderStep {
  label: string;
  said: string;
  powered: boolean;
  minutes: number;
  /** What it believed in after that, and how much, 0 to 1. */
  believes: string;
  share: number;
}

/** How a person did, against the finder. */
export interface PracticeScore {
  right: boolean;
  /** Whether the place was named too; null where the fault has none. */
  place: boolean | null;
  readings: number;
  powered: number;
  minutes: number;
}

/** Where a fault sits, as a person names it: 'D2'; empty where it has no place of its own. */
export const placeOf = ({ part }: Pick<Hidden, 'part'>): string => (part.startsWith('diode') ? placeWords(part) : '');

export function scored(
  { hidden, truth }: Puzzle,
  taken: readonly PracticeReading[],
  fault: BenchFault,
  place: string,
): PracticeScore {
  const where = placeOf(hidden);
  return {
    right: fault === truth,
    place: where === '' ? null : place === where,
    readings: taken.length,
    powered: taken.filter((t) => t.powered).length,
    minutes: taken.reduce((sum, t) => sum + t.minutes, 0),
  };
}

import { latestReadings } from '@/core/bench/readings';
import { stagesOf, type Stage } from '@/core/bench/stages';
import type { Design } from '@/core/design/design';
import { TICK_MAX } from '@/core/design/how-many';
import type { NetPart, Netlist } from '@/core/netlist/netlist';

/** A stage of the building: what goes in, in its order, and what is measured before the next begins. */
export interface AssemblyStage {
  name: string;
  parts: readonly NetPart[];
  /** How many of them are in their place. */
  placed: number;
  /** The power-up's stages to go through once all of it is in. */
  tests: readonly string[];
  /** Whether everything those wait for has been read. */
  tested: boolean;
}

/** What to do now: a part to put in, a stage to measure, or nothing. */
export type AssemblyNext =
  | { do: 'place'; stage: string; part: NetPart }
  | { do: 'test'; stage: string; tests: readonly string[] }
  | { do: 'done' };

const NAMES = ['Mains and transformer', 'Rectifier and reservoir', 'Regulator', 'Protection, lamp and clamps'] as const;
const DIRECT = ['Source', ...NAMES.slice(1)] as const;

/** Low and heat-proof parts first, then tall ones, then what minds heat, and big cans and iron last. */
const ORDER: readonly NetPart['kind'][] = [
  'resistor',
  'diode',
  'zener',
  'capacitor',
  'inlet',
  'fuse',
  'cutout',
  'switch',
  'source',
  'pot',
  'terminal',
  'valve',
  'heater',
  'led',
  'bridge',
  'transistor',
  'regulator',
  'control',
  'fan',
  'electrolytic',
  'choke',
  'transformer',
];

/** What stands in the document for a part that is in its place: of another value it is another part, and not in. */
export const tickOf = ({ key, value }: Pick<NetPart, 'key' | 'value'>): string => `${key}: ${value}`.slice(0, TICK_MAX);

/** A design's assembly, stage by stage of its power-up, each in the order parts go in. */
export function assemblyOf(design: Design, { parts }: Netlist): AssemblyStage[] {
  // Where nothing is waited for nothing holds the building up.
  const bench = stagesOf(design).filter((s) => s.points.length > 0);
  const names = parts.some((p) => p.kind === 'inlet') ? NAMES : DIRECT;
  const placed = new Set(design.build.placed);
  const read = latestReadings(design.bench.readings);
  return names
    .map((name, n): AssemblyStage => {
      const own = parts.filter((p) => stageOf(p) === n).sort((a, b) => rank(a) - rank(b));
      const tests = bench.filter((s) => testedAfter(s) === n);
      const wanted = tests.flatMap((s) => s.points);
      return {
        name,
        parts: own,
        placed: own.filter((p) => placed.has(tickOf(p))).length,
        tests: tests.map((s) => s.name),
        tested: wanted.every((p) => read.has(p)),
      };
    })
    .filter((s) => s.parts.length > 0 || s.tests.length > 0);
}

/** What is next: the first stage that is not all in its place, or in it and not measured. */
export function assemblyNext(design: Design, stages: readonly AssemblyStage[]): AssemblyNext {
  const placed = new Set(design.build.placed);
  for (const stage of stages) {
    const part = stage.parts.find((p) => !placed.has(tickOf(p)));
    if (part) return { do: 'place', stage: stage.name, part };
    if (!stage.tested && stage.tests.length > 0) return { do: 'test', stage: stage.name, tests: stage.tests };
  }
  return { do: 'done' };
}

function stageOf({ block, kind, what, line }: NetPart): number {
  if (kind === 'led' || kind === 'fan' || kind === 'terminal' || line.startsWith('indicator')) return 3;
  if (block === 'mains' || block === 'transformer' || line === 'secondary-fuse') return 0;
  if (block === 'rectifier' || block === 'filter') return 1;
  return kind === 'diode' && /to (input|output)$/.test(what) ? 3 : 2;
}

/** After which stage of the building a stage of the power-up comes. */
function testedAfter({ name }: Stage): number {
  if (name === 'Before anything' || name === 'Transformer alone') return 0;
  if (name === 'Reservoir' || name === 'Rectifier and reservoir') return 1;
  return name === 'Regulator' ? 2 : 3;
}

/** Of two alike the smaller can goes in first. */
const rank = ({ kind, si }: NetPart): number =>
  ORDER.indexOf(kind) + (kind === 'electrolytic' ? Math.min(0.9, si?.value ?? 0) : 0);

import type { Design, FilterStep, Patch } from '@/core/design/design';
import type { FieldPath } from '@/core/design/limits';
import type { NetPart } from '@/core/netlist/netlist';

/** A value of a part that can be typed over where it is drawn. */
export interface ValueEdit {
  path: FieldPath;
  label: string;
  value: number | null;
  patch(value: number | null): Patch;
}

/** Fields of the main regulator by what a part of it is there for. */
const REGULATOR_FIELDS: readonly (readonly [what: RegExp, key: string, label: string])[] = [
  [/^sets the output with R2/, 'r1Ohm', 'R1'],
  [/^sets the output with R1/, 'r2Ohm', 'R2'],
  [/^turns the output/, 'potOhm', 'Pot'],
  [/^feeds the zener/, 'seriesOhm', 'Series resistor'],
  [/^the reference/, 'zenerV', 'Zener'],
  [/^drives the bases/, 'driveOhm', 'Drive resistor'],
  [/^sets the output, upper/, 'upperOhm', 'Upper resistor'],
  [/^sets the output, lower/, 'lowerOhm', 'Lower resistor'],
  [/^makes them share/, 'emitterOhm', 'Each emitter resistor'],
];

/** The value of a drawn part that its design holds; null for what is chosen as a whole, or elsewhere. */
export function valueEditOf(
  design: Design,
  part: Pick<NetPart, 'line' | 'what' | 'kind' | 'output'>,
): ValueEdit | null {
  const { reservoir, filter, mainsSide, regulator } = design;
  const step = /^(before|after)-(\d+)$/.exec(part.line);
  if (step) return stepEdit(filter, step[1] as 'before' | 'after', Number(step[2]));
  switch (part.line) {
    case 'reservoir':
      return {
        path: 'reservoir.capacitanceF',
        label: 'Each can',
        value: reservoir.capacitanceF,
        patch: (v) => ({ reservoir: { capacitanceF: v! } }),
      };
    case 'bleeder':
      return {
        path: 'filter.bleederOhm',
        label: 'Bleeder',
        value: filter.bleederOhm,
        patch: (v) => ({ filter: { bleederOhm: v } }),
      };
    case 'primary-fuse':
      return {
        path: 'mainsSide.primaryFuseA',
        label: 'Primary fuse',
        value: mainsSide.primaryFuseA,
        patch: (v) => ({ mainsSide: { primaryFuseA: v } }),
      };
    case 'secondary-fuse':
      return {
        path: 'mainsSide.secondaryFuseA',
        label: 'Fuse of the winding',
        value: mainsSide.secondaryFuseA,
        patch: (v) => ({ mainsSide: { secondaryFuseA: v } }),
      };
  }
  if (!part.line.startsWith('regulator:')) return null;
  const sense = regulator.kind === 'bench' ? 'shuntOhm' : 'limitOhm';
  const [, key, label] =
    part.what === 'senses the current'
      ? [null, sense, 'Sense resistor']
      : (REGULATOR_FIELDS.find(([what]) => what.test(part.what)) ?? []);
  if (key === undefined || !(key in regulator)) return null;
  return {
    path: `regulator.${key}` as FieldPath,
    label: label!,
    value: (regulator as unknown as Record<string, number | null>)[key]!,
    patch: (v) => ({ regulator: { ...regulator, [key]: v } }) as Patch,
  };
}

function stepEdit(filter: Design['filter'], side: 'before' | 'after', at: number): ValueEdit | null {
  const step = filter[side][at];
  if (!step) return null;
  const key = step.kind === 'choke' ? 'inductanceH' : step.kind === 'resistor' ? 'resistanceOhm' : 'capacitanceF';
  return {
    path: `filter.${step.kind}.${key}` as FieldPath,
    label: step.kind === 'choke' ? 'Inductance' : step.kind === 'resistor' ? 'Resistance' : 'Capacitance',
    value: (step as unknown as Record<string, number>)[key]!,
    patch: (v) => ({
      filter: { [side]: filter[side].map((s, n) => (n === at ? ({ ...s, [key]: v! } as FilterStep) : s)) },
    }),
  };
}

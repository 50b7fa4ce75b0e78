import { ofDiodeClass } from '@/core/design/diode-edit';
import { arrangementFacts, arrangementOf } from '@/core/design/source';
import type { Design, Patch, Pick } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import { windingCount } from '@/core/design/words';
import { diodeCount } from '@/core/parts/arrangement';
import { JUNCTION_CLASSES, type DiodeClass } from '@/core/parts/diode';
import { regulatorOfKind, sharingOhm } from '@/core/design/regulator-edit';
import type { SomeRegulator } from '@/core/parts/regulators';
import { ADJUSTABLE_IDS, ADJUSTABLE_PARTS } from '@/core/parts/regulators/adjustable';
import { LOW_DROPOUT_PARTS, type LowDropoutId } from '@/core/parts/regulators/low-dropout';
import { PASS_TRANSISTORS, type PassTransistor } from '@/core/parts/transistor';
import { REGULATOR_SIZES } from '@/core/parts/regulators/fixed';
import type { Part, PartDraft, PartKind } from './part';

/** Kinds that can play a role in a design. */
export const ROLE_KINDS: Readonly<Record<PartRole, readonly PartKind[]>> = {
  transformer: ['transformer'],
  rectifier: ['diode', 'bridge'],
  choke: ['choke'],
  reservoir: ['capacitor'],
  regulator: ['regulator'],
  transistor: ['transistor'],
  sink: ['sink'],
};

/** One way of using a part in a design. */
export interface Use {
  role: PartRole;
  patch: Patch;
  /** How it is connected where that is not obvious: 'both windings in series', '3 in parallel'. */
  how: string;
  /** How many pieces it takes. */
  pieces: number;
}

/** Most cans a bank is tried with. */
const MOST_CANS = 4;

/** Every way a part could serve in a design; none when it cannot at all. */
export function usesOf(part: PartDraft, design: Design, role: PartRole): Use[] {
  if (!ROLE_KINDS[role].includes(part.kind)) return [];
  const r = (key: string): number | null => part.ratings[key] ?? null;
  const rails = arrangementOf(design).rails;
  const one = (patch: Patch, how = '', pieces = 1): Use => ({ role, patch, how, pieces });
  switch (part.kind) {
    case 'transformer': {
      const windings = r('windings') ?? 1;
      const wound = (ratedV: number, how: string, windingsOnPlate: number | null = null) =>
        one(
          {
            transformer: {
              ratedV,
              ratedVA: r('sizeVA')!,
              regulationPct: r('regulationPct'),
              leakageH: 0,
              windingsOnPlate,
              source: { kind: 'plate' },
            },
          },
          how,
        );
      const volts = r('secondaryV')!;
      if (windingCount(design) === 2) return windings >= 2 ? [wound(volts, '')] : [];
      return windings >= 2
        ? [
            wound(volts, 'windings in parallel, in phase'),
            wound(2 * volts, 'windings in series'),
            wound(volts, 'one winding alone', 2),
          ]
        : [wound(volts, '')];
    }
    case 'diode':
    case 'bridge': {
      // A ready-made bridge is four diodes; other arrangements would leave some of them idle.
      const { bridges } = arrangementFacts(design);
      if (part.kind === 'bridge' && bridges === 0) return [];
      const averageA = part.kind === 'bridge' ? r('outputA')! / 2 : r('averageA')!;
      const like = nearestClass(averageA, part.kind === 'diode' && r('schottky') === 1);
      const rated = { averageA, reverseV: r('reverseV')!, surgeA: r('surgeA') ?? like.surgeA };
      const pieces = part.kind === 'bridge' ? bridges : diodeCount(arrangementOf(design));
      const many = part.kind === 'diode' || pieces > 1;
      return many && part.count < pieces
        ? []
        : [one({ rectifier: { ...ofDiodeClass(like.id), rated } }, pieces === 1 ? '' : `${pieces} of them`, pieces)];
    }
    case 'capacitor': {
      const places = arrangementFacts(design).cans;
      const can = {
        capacitanceF: r('capacitanceF')!,
        ratedV: r('ratedV')!,
        esrOhm: r('esrOhm'),
        rippleA: r('rippleA'),
        pair: false,
        ...(r('gradeC') === null ? {} : { gradeC: r('gradeC')! >= 100 ? (105 as const) : (85 as const) }),
      };
      return Array.from({ length: MOST_CANS }, (_, n) => n + 1)
        .filter((cans) => cans * places <= part.count)
        .map((cans) => one({ reservoir: { ...can, cans } }, cans > 1 ? `${cans} in parallel` : '', cans * places));
    }
    case 'regulator': {
      const regulator = part.count < 1 ? null : regulatorOfPart(part, design);
      return regulator ? [one({ regulator }, rails > 1 ? 'and its negative twin' : '')] : [];
    }
    case 'transistor': {
      const { regulator } = design;
      if (!('transistor' in regulator) || part.count < 1) return [];
      const like = nearestTransistor(r('collectorA')!, r('ceoV')!);
      if (!like) return [];
      const uses = (passes: number, how: string) =>
        passes * rails <= part.count
          ? [
              one(
                {
                  regulator: {
                    ...regulator,
                    transistor: like.id,
                    // Several come with the emitter resistors that make them share.
                    ...('passes' in regulator
                      ? {
                          passes,
                          emitterOhm:
                            passes > 1
                              ? Math.max(regulator.emitterOhm, sharingOhm(design, passes))
                              : regulator.emitterOhm,
                        }
                      : {}),
                  },
                },
                how,
                passes * rails,
              ),
            ]
          : [];
      return 'passes' in regulator
        ? [1, 2, 3, 4].flatMap((n) => uses(n, n > 1 ? `${n} in parallel` : ''))
        : uses(1, '');
    }
    case 'choke': {
      const choke = {
        kind: 'choke' as const,
        inductanceH: r('inductanceH')!,
        resistanceOhm: r('resistanceOhm') ?? 0,
        ratedA: r('ratedA')!,
        swinging: false,
      };
      if (part.count < rails) return [];
      const { filter } = design;
      // It takes the place of the first choke there is.
      for (const side of ['before', 'after'] as const) {
        const at = filter[side].findIndex((s) => s.kind === 'choke');
        if (at >= 0)
          return [one({ filter: { [side]: filter[side].map((s, n) => (n === at ? choke : s)) } }, '', rails)];
      }
      return [];
    }
    case 'sink':
      return [one({ heat: { sinkKPerW: r('kPerW') } })];
    default:
      return [];
  }
}

/** How near a rating has to come to a class to be of it. */
const LIKE = 0.05;
/** Dropout below which a regulator is of the low-dropout class, V. */
const LOW_DROPOUT_V = 1.3;

const leastOff = <T>(list: readonly T[], off: (item: T) => number): T | undefined =>
  [...list].sort((a, b) => off(a) - off(b))[0];

/** The regulator a part would be in a design: adjustable ones are set to its output, low-dropout ones made for theirs. */
function regulatorOfPart(part: PartDraft, design: Design): SomeRegulator | null {
  const { outputV, ratedA, dropoutV, adjustable } = part.ratings;
  const alike = (amps: number) => Math.abs(amps / ratedA! - 1) < LIKE;
  if (adjustable === 1) {
    const id = ADJUSTABLE_IDS.find((k) => alike(ADJUSTABLE_PARTS[k].ratedA));
    const made = regulatorOfKind(design, 'adjustable');
    return id && made.kind === 'adjustable' ? { ...made, part: id } : null;
  }
  if (typeof dropoutV === 'number' && dropoutV < LOW_DROPOUT_V) {
    const id = (Object.keys(LOW_DROPOUT_PARTS) as LowDropoutId[]).find((k) => alike(LOW_DROPOUT_PARTS[k].ratedA));
    return id ? { kind: 'low-dropout', part: id, outputV: outputV!, boardCm2: 6 } : null;
  }
  const size = REGULATOR_SIZES.find((s) => s.outputsV.includes(outputV!) && alike(s.ratedA));
  return size ? { kind: 'fixed', size: size.id, outputV: outputV! } : null;
}

/** The class a pass transistor is of: the largest that promises no more than it bears. */
function nearestTransistor(collectorA: number, ceoV: number): PassTransistor | undefined {
  const borne = PASS_TRANSISTORS.filter((t) => t.maxA <= collectorA * (1 + LIKE) && t.maxV <= ceoV * (1 + LIKE));
  return leastOff(borne, (t) => Math.abs(Math.log(collectorA / t.maxA)) + Math.abs(Math.log(ceoV / t.maxV)));
}

/** The class whose law comes closest: same technology, current nearest on a logarithmic scale. */
function nearestClass(averageA: number, schottky: boolean): DiodeClass {
  const same = JUNCTION_CLASSES.filter((d) => (d.technology === 'Schottky') === schottky);
  const distance = (d: DiodeClass) => Math.abs(Math.log(d.averageA / averageA));
  return same.reduce((best, d) => (distance(d) < distance(best) ? d : best));
}

/** The design with a part in it, and the pick that remembers which. */
export function withPart(design: Design, part: Part, use: Use): Patch {
  const pick: Pick = {
    role: use.role,
    partId: part.id,
    name: part.name,
    priceEur: part.priceEur === null ? null : part.priceEur * use.pieces,
    heightMm: part.ratings['heightMm'] ?? null,
    values: use.patch,
  };
  return { ...use.patch, picked: [...design.picked.filter((p) => p.role !== use.role), pick] };
}

/** Whether what a pick set in a design still stands there. */
export function stillIn(design: Design, pick: { values: Pick['values'] }): boolean {
  return holds(design as unknown as Record<string, unknown>, pick.values as Record<string, unknown>);
}

function holds(value: unknown, wanted: unknown): boolean {
  if (typeof wanted !== 'object' || wanted === null) return value === wanted;
  if (typeof value !== 'object' || value === null) return false;
  return Object.entries(wanted).every(([key, w]) => holds((value as Record<string, unknown>)[key], w));
}

/** Whether a part is what a design has in a role already: taking it would change nothing. */
export const isAlready = (part: PartDraft, design: Design, role: PartRole): boolean =>
  usesOf(part, design, role).some((use) => stillIn(design, { values: use.patch }));

/** Role of each part in a design that is still in it. */
export function partsIn(design: Design): Pick[] {
  return design.picked.filter((p) => stillIn(design, p));
}

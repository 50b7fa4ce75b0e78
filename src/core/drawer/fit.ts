import { arrangementOf } from '@/core/design/source';
import type { Design, PartRole, Patch, Pick } from '@/core/design/design';
import { windingCount } from '@/core/design/words';
import { diodeCount } from '@/core/parts/arrangement';
import { DIODE_CLASSES, type DiodeClass } from '@/core/parts/diode';
import { REGULATOR_SIZES } from '@/core/parts/regulators/fixed';
import type { Part, PartDraft, PartKind } from './part';

/** Kinds that can play a role in a design. */
export const ROLE_KINDS: Readonly<Record<PartRole, readonly PartKind[]>> = {
  transformer: ['transformer'],
  rectifier: ['diode', 'bridge'],
  reservoir: ['capacitor'],
  regulator: ['regulator'],
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
      const wound = (ratedV: number, how: string) =>
        one(
          {
            transformer: {
              ratedV,
              ratedVA: r('sizeVA')!,
              regulationPct: r('regulationPct'),
              leakageH: 0,
              source: { kind: 'plate' },
            },
          },
          how,
        );
      const volts = r('secondaryV')!;
      if (windingCount(design) === 2) return windings >= 2 ? [wound(volts, '')] : [];
      return windings >= 2
        ? [wound(volts, 'windings in parallel, in phase'), wound(2 * volts, 'windings in series')]
        : [wound(volts, '')];
    }
    case 'diode':
    case 'bridge': {
      // A ready-made bridge is four diodes; other arrangements would leave some of them idle.
      const four = design.rectifier.kind === 'bridge' || design.rectifier.kind === 'split-bridge';
      if (part.kind === 'bridge' && !four) return [];
      const averageA = part.kind === 'bridge' ? r('outputA')! / 2 : r('averageA')!;
      const like = nearestClass(averageA, part.kind === 'diode' && r('schottky') === 1);
      const rated = { averageA, reverseV: r('reverseV')!, surgeA: r('surgeA') ?? like.surgeA };
      const pieces = part.kind === 'bridge' ? 1 : diodeCount(arrangementOf(design));
      return part.kind === 'diode' && (part as Partial<Part>).count !== undefined && part.count < pieces
        ? []
        : [one({ rectifier: { diode: like.id, rated } }, part.kind === 'bridge' ? '' : `${pieces} of them`, pieces)];
    }
    case 'capacitor': {
      const perRail = (arrangementOf(design).stacked ? 2 : 1) * rails;
      const can = {
        capacitanceF: r('capacitanceF')!,
        ratedV: r('ratedV')!,
        esrOhm: r('esrOhm'),
        rippleA: r('rippleA'),
        pair: false,
      };
      return Array.from({ length: MOST_CANS }, (_, n) => n + 1)
        .filter((cans) => cans * perRail <= part.count)
        .map((cans) => one({ reservoir: { ...can, cans } }, cans > 1 ? `${cans} in parallel` : '', cans * perRail));
    }
    case 'regulator': {
      const size = REGULATOR_SIZES.find(
        (s) => s.outputsV.includes(r('outputV')!) && Math.abs(s.ratedA / r('ratedA')! - 1) < 0.05,
      );
      if (!size || part.count < 1) return [];
      return [one({ regulator: { kind: 'fixed', size: size.id, outputV: r('outputV')! } })];
    }
    case 'sink':
      return [one({ heat: { sinkKPerW: r('kPerW') } })];
    default:
      return [];
  }
}

/** The class whose law comes closest: same technology, current nearest on a logarithmic scale. */
function nearestClass(averageA: number, schottky: boolean): DiodeClass {
  const same = DIODE_CLASSES.filter((d) => (d.technology === 'Schottky') === schottky);
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
    values: use.patch,
  };
  return { ...use.patch, picked: [...design.picked.filter((p) => p.role !== use.role), pick] };
}

/** Whether what a pick set in a design still stands there. */
export function stillIn(design: Design, pick: Pick): boolean {
  return holds(design as unknown as Record<string, unknown>, pick.values as Record<string, unknown>);
}

function holds(value: unknown, wanted: unknown): boolean {
  if (typeof wanted !== 'object' || wanted === null) return value === wanted;
  if (typeof value !== 'object' || value === null) return false;
  return Object.entries(wanted).every(([key, w]) => holds((value as Record<string, unknown>)[key], w));
}

/** Role of each part in a design that is still in it. */
export function partsIn(design: Design): Pick[] {
  return design.picked.filter((p) => stillIn(design, p));
}

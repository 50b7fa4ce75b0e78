import { nearestInDecades, nearestInList, stepInDecades, E12, E24, E6 } from '@/core/quantity/preferred';
import { REGULATOR_SIZES } from '@/core/parts/regulators/fixed';
import { regulatorModel, type SomeRegulator } from '@/core/parts/regulators';
import {
  ADJUSTABLE_PARTS,
  adjustableR2,
  REFERENCE_V,
  settingPair,
  type AdjustableId,
} from '@/core/parts/regulators/adjustable';
import { errorTransistorUpper } from '@/core/parts/regulators/error-transistor';
import { LOW_DROPOUT_PARTS, type LowDropoutId } from '@/core/parts/regulators/low-dropout';
import { passTransistor, PASS_TRANSISTORS } from '@/core/parts/transistor';
import { formatNominal } from '@/core/quantity/format';
import type { Design, Edit, Regulator } from './design';

const least = <T extends string>(parts: Readonly<Record<T, { ratedA: number }>>, amps: number): T => {
  const ids = (Object.keys(parts) as T[]).sort((a, b) => parts[a].ratedA - parts[b].ratedA);
  return ids.find((id) => parts[id].ratedA >= amps) ?? ids[ids.length - 1]!;
};

/** One transistor by itself, as strong as its class promises. */
const ALONE = { passes: 1, emitterOhm: 0, gain: null } as const;

/** A regulator of another family for what the design asks: changing the family keeps output and current. */
export function regulatorOfKind(design: Design, kind: Regulator['kind']): Regulator {
  const { outputA } = design.demand;
  const outputV = regulatorModel(design.regulator)?.outputV ?? design.demand.outputV;
  const pass = PASS_TRANSISTORS.find((t) => 0.7 * t.maxA >= outputA && t.id !== 'bd139') ?? passTransistor('mj15003');
  const limitOhm = nearestInDecades(0.65 / (1.3 * outputA), E12);
  switch (kind) {
    case 'none':
      return { kind };
    case 'fixed': {
      const able = REGULATOR_SIZES.filter((s) => s.ratedA >= outputA);
      const size = able[0] ?? REGULATOR_SIZES[REGULATOR_SIZES.length - 1]!;
      return { kind, size: size.id, outputV: nearestInList(outputV, size.outputsV) };
    }
    case 'adjustable': {
      const { r1Ohm, r2Ohm } = settingPair(Math.max(outputV, REFERENCE_V), 'E24');
      return {
        kind,
        part: least<AdjustableId>(ADJUSTABLE_PARTS, outputA),
        r1Ohm,
        r2Ohm,
        potOhm: null,
        adjCapacitor: true,
      };
    }
    case 'low-dropout':
      return {
        kind,
        part: least<LowDropoutId>(LOW_DROPOUT_PARTS, outputA),
        outputV: Number(outputV.toPrecision(3)),
        boardCm2: 6,
      };
    case 'follower': {
      const zenerV = nearestInDecades(outputV + pass.vbe, E24);
      return {
        kind,
        zenerV,
        transistor: pass.id,
        zenerW: 1.3,
        seriesOhm: nearestInDecades(Math.max(10, 3 / (0.003 + outputA / pass.gain)), E12),
        limitOhm,
        ...ALONE,
      };
    }
    case 'error-transistor': {
      const zenerV = outputV > 9 ? 5.6 : 3.3;
      const lowerOhm = 2200;
      const upperOhm = nearestInDecades(Math.max(10, errorTransistorUpper(zenerV, lowerOhm, outputV)), E24);
      return {
        kind,
        zenerV,
        upperOhm,
        potOhm: null,
        lowerOhm,
        transistor: pass.id,
        driveOhm: 1000,
        limitOhm,
        ...ALONE,
      };
    }
    case 'bench':
      return {
        kind,
        maxV: Math.max(3, Number(outputV.toPrecision(3))),
        limitA: Number(outputA.toPrecision(3)),
        referenceV: 2.5,
        referencePct: 1,
        gain: null,
        opampRail: 'raw',
        shuntOhm: nearestInDecades(0.5 / outputA, E12),
        transistor: 'tip3055',
        passes: 1,
        emitterOhm: 0.1,
        opampMaxV: 36,
        shuntPct: 1,
        resistorPct: 1,
      };
  }
}

/** The same regulator set for another output, as far as its family can. */
export function withOutput(regulator: Regulator, outputV: number): Regulator {
  switch (regulator.kind) {
    case 'none':
      return regulator;
    case 'fixed': {
      const size = REGULATOR_SIZES.find((s) => s.id === regulator.size)!;
      return { ...regulator, outputV: nearestInList(outputV, size.outputsV) };
    }
    case 'adjustable': {
      const r2Ohm = adjustableR2(outputV, regulator.r1Ohm) - (regulator.potOhm ?? 0);
      return { ...regulator, r2Ohm: r2Ohm < 10 ? 0 : nearestInDecades(r2Ohm, E24) };
    }
    case 'low-dropout':
      return { ...regulator, outputV: Math.min(100, Math.max(0.5, Number(outputV.toFixed(1)))) };
    case 'follower': {
      const vbe = passTransistor(regulator.transistor).vbe;
      return { ...regulator, zenerV: nearestInDecades(Math.min(200, Math.max(2.4, outputV + vbe)), E24) };
    }
    case 'error-transistor': {
      const upper = errorTransistorUpper(regulator.zenerV, regulator.lowerOhm, outputV) - (regulator.potOhm ?? 0);
      return { ...regulator, upperOhm: upper < 10 ? 0 : nearestInDecades(upper, E24) };
    }
    case 'bench':
      return { ...regulator, maxV: Math.min(100, Math.max(regulator.referenceV, Number(outputV.toFixed(1)))) };
  }
}

/** The regulator one step up or down in output. */
export function steppedOutput(regulator: SomeRegulator, direction: number): Regulator {
  const { outputV } = regulatorModel(regulator);
  if (regulator.kind === 'fixed') {
    const { outputsV } = REGULATOR_SIZES.find((s) => s.id === regulator.size)!;
    const at = outputsV.indexOf(regulator.outputV);
    return { ...regulator, outputV: outputsV[Math.min(outputsV.length - 1, Math.max(0, at + Math.sign(direction)))]! };
  }
  for (const by of [0.02, 0.05, 0.1, 0.2]) {
    const next = withOutput(regulator, outputV * (1 + by * Math.sign(direction)));
    if (Math.abs(regulatorModel(next as SomeRegulator).outputV - outputV) > 1e-6) return next;
  }
  return regulator;
}

/** Dividers that reach the range wanted of an output: a pot of the usual values, the resistors around it from E24. */
export function rangeEdit({ regulator, demand }: Design): Edit[] {
  const { range } = demand;
  if (!range) return [];
  switch (regulator.kind) {
    case 'bench':
      return [
        {
          label: `Volts knob up to ${formatNominal(range.highV, 'V')}`,
          patch: { regulator: { ...regulator, maxV: Math.max(range.highV, regulator.referenceV) } },
        },
      ];
    case 'adjustable': {
      const least = Math.max(range.lowV, REFERENCE_V);
      const wanted = adjustableR2(range.highV, regulator.r1Ohm) - adjustableR2(least, regulator.r1Ohm);
      return POTS.filter((potOhm) => potOhm >= wanted)
        .slice(0, 2)
        .map((potOhm) => {
          // The pot decides the span, R1 the volts a turn of it makes.
          const r1Ohm = nearestInDecades(Math.min(1000, (REFERENCE_V * potOhm) / (range.highV - least)), E24);
          const below = adjustableR2(least, r1Ohm);
          const r2Ohm = below < 5 ? 0 : nearestInDecades(below * 0.95, E24);
          return {
            label: `R1 ${formatNominal(r1Ohm, 'ohm')}, pot ${formatNominal(potOhm, 'ohm')}`,
            patch: { regulator: { ...regulator, r1Ohm: Math.max(10, r1Ohm), r2Ohm, potOhm } },
          };
        });
    }
    case 'error-transistor': {
      const reference = regulator.zenerV + 0.65;
      const lowV = Math.max(range.lowV, 1.05 * reference);
      if (range.highV <= lowV) return [];
      return POTS.slice(2, 6).map((potOhm) => {
        // Pot wiper at either end: low = ref·total/(lower + pot), high = ref·total/lower.
        const lower = potOhm / (range.highV / lowV - 1);
        const total = (lower * range.highV) / reference;
        const lowerOhm = Math.max(10, nearestInDecades(lower * 0.97, E24));
        const upper = total - lower - potOhm;
        return {
          label: `Pot ${formatNominal(potOhm, 'ohm')} between ${formatNominal(lowerOhm, 'ohm')} and the rest`,
          patch: {
            regulator: { ...regulator, potOhm, lowerOhm, upperOhm: upper < 5 ? 0 : nearestInDecades(upper, E24) },
          },
        };
      });
    }
    default:
      return [];
  }
}

/** Pots as they are sold, ohm. */
const POTS = [500, 1000, 2000, 2500, 5000, 10000, 25000, 50000] as const;

/** Resistor, next in E6, that stands at a tenth of a volt and more with the full current shared, ohm. */
export function sharingOhm({ regulator, demand }: Design, passes: number): number {
  const amps = Math.max(demand.outputA, regulator.kind === 'bench' ? regulator.limitA : 0);
  return stepInDecades(nearestInDecades(Math.max(0.01, (0.1 * passes) / amps), E6), E6, 1);
}

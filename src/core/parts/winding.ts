import { copperRatio } from './transformer';

/** A transformer wound by hand on a known core. SI, but millimetres as they are measured. */
export interface WindingPlan {
  /** Tongue (or toroid) cross-section and the window, and the mean length of one turn. */
  areaMm2: number;
  windowMm2: number;
  meanTurnMm: number;
  /** Highest flux density, T. */
  fluxT: number;
  /** Turns a volt as ten test turns gave it; null to compute it. */
  turnsPerVolt: number | null;
  primaryTurns: number;
  primaryWireMm: number;
  /** Of one winding, or of each half. */
  secondaryTurns: number;
  secondaryWireMm: number;
}

/** Resistivity of copper at 20 °C, ohm*mm2/m. */
const COPPER_OHM_MM2_PER_M = 0.0172;
/** Enamel adds this to the bare diameter of thin and of thick wire, as a share. */
const ENAMEL_SHARE = 0.08;
/** Of the window that wire and its insulation may fill on a bobbin; more does not go in by hand. */
export const WINDOW_FILL_MAX = 0.4;
/** Sustained current density hobby transformers bear, A/mm2: small and open, and large and buried. */
export const CURRENT_DENSITY = { most: 3.5, least: 2 } as const;

export interface Lamination {
  id: string;
  name: string;
  core: 'laminated' | 'toroid';
  areaMm2: number;
  windowMm2: number;
  meanTurnMm: number;
  fluxT: number;
}

/** Standard laminations with a square stack (EI sizes by their long side, mm) and common ring cores. Typical figures. */
export const LAMINATIONS: readonly Lamination[] = [
  ei(42, 14),
  ei(48, 16),
  ei(54, 18),
  ei(60, 20),
  ei(66, 22),
  ei(75, 25),
  ei(84, 28),
  ei(96, 32),
  ei(105, 35),
  ei(120, 40),
  ring('ring 70/40 x 30', 70, 40, 30),
  ring('ring 90/50 x 40', 90, 50, 40),
  ring('ring 110/60 x 45', 110, 60, 45),
];

/** Waste-free lamination: tongue t, window t/2 by 3t/2, stacked square, 0.95 of it iron. */
function ei(size: number, tongue: number): Lamination {
  return {
    id: `ei-${size}`,
    name: `EI ${size}, square stack`,
    core: 'laminated',
    areaMm2: 0.95 * tongue * tongue,
    windowMm2: 0.75 * tongue * tongue,
    meanTurnMm: Math.round(5.7 * tongue),
    fluxT: 1.15,
  };
}

function ring(name: string, outer: number, inner: number, height: number): Lamination {
  const build = (outer - inner) / 2;
  return {
    id: name.replaceAll(/[ /]/g, '-'),
    name: name[0]!.toUpperCase() + name.slice(1),
    core: 'toroid',
    areaMm2: 0.95 * build * height,
    // The hole has to stay open for the shuttle: half of it takes wire.
    windowMm2: 0.5 * Math.PI * (inner / 2) ** 2,
    meanTurnMm: Math.round(2 * (build + height) * 1.15),
    fluxT: 1.4,
  };
}

/** Bare diameters in which enamelled wire is sold, mm (R20 series of IEC 60317, the hobby range). */
export const WIRE_MM: readonly number[] = [
  0.1, 0.112, 0.125, 0.14, 0.16, 0.18, 0.2, 0.224, 0.25, 0.28, 0.315, 0.355, 0.4, 0.45, 0.5, 0.56, 0.63, 0.71, 0.8, 0.9,
  1, 1.12, 1.25, 1.4, 1.6, 1.8, 2, 2.24, 2.5,
];

/** Turns a volt so that a sine of `frequencyHz` drives the core to `fluxT`: 1/(4.44*f*B*A). */
export function turnsPerVolt(areaMm2: number, fluxT: number, frequencyHz: number): number {
  return 1 / (4.44 * frequencyHz * fluxT * areaMm2 * 1e-6);
}

/** Bare wire diameter for a current at a current density, mm: sqrt(4I/(pi J)). */
export function wireFor(currentA: number, densityAPerMm2: number): number {
  return Math.sqrt((4 * currentA) / (Math.PI * densityAPerMm2));
}

export interface Wound {
  turnsPerVolt: number;
  /** Of one winding, or of each half, at nominal mains, V RMS. */
  openV: number;
  /** At 20 °C, ohm; the primary also as the secondary sees it. */
  primaryOhm: number;
  secondaryOhm: number;
  primaryReferredOhm: number;
  /** Peak flux density at nominal mains with these primary turns, T. */
  fluxT: number;
  /** Share of the window the wire takes, insulation between layers not counted. */
  fill: number;
  primaryLengthM: number;
  secondaryLengthM: number;
  copperKg: number;
  /** Highest lasting secondary current at 3.5 A/mm2, A. */
  secondaryA: number;
  /** What the core carries by the rule VA = (cm2)^2, more at higher frequency: a rule of thumb. */
  coreVA: number;
}

/**
 * A winding plan computed: volts, copper, fill. Layers alternate on one bobbin, so one mean turn serves both windings.
 * @param halves secondary windings of secondaryTurns each
 */
export function woundModel(plan: WindingPlan, nominalV: number, frequencyHz: number, halves: 1 | 2): Wound {
  const copper = (turns: number, wireMm: number) => {
    const lengthM = (turns * plan.meanTurnMm) / 1000;
    const area = (Math.PI * wireMm ** 2) / 4;
    return { lengthM, area, ohm: (COPPER_OHM_MM2_PER_M * lengthM) / area };
  };
  const primary = copper(plan.primaryTurns, plan.primaryWireMm);
  const secondary = copper(plan.secondaryTurns, plan.secondaryWireMm);
  const ratio = plan.secondaryTurns / plan.primaryTurns;
  const room = (turns: number, wireMm: number) => turns * (wireMm * (1 + ENAMEL_SHARE)) ** 2;
  const areaCm2 = plan.areaMm2 / 100;
  return {
    turnsPerVolt: plan.turnsPerVolt ?? turnsPerVolt(plan.areaMm2, plan.fluxT, frequencyHz),
    openV: ratio * nominalV,
    primaryOhm: primary.ohm,
    secondaryOhm: secondary.ohm,
    primaryReferredOhm: primary.ohm * ratio ** 2,
    fluxT: nominalV / (4.44 * frequencyHz * plan.primaryTurns * plan.areaMm2 * 1e-6),
    fill:
      (room(plan.primaryTurns, plan.primaryWireMm) + halves * room(plan.secondaryTurns, plan.secondaryWireMm)) /
      plan.windowMm2,
    primaryLengthM: primary.lengthM,
    secondaryLengthM: halves * secondary.lengthM,
    copperKg: 8.96e-3 * (primary.lengthM * primary.area + halves * secondary.lengthM * secondary.area),
    secondaryA: CURRENT_DENSITY.most * secondary.area,
    coreVA: areaCm2 ** 2 * (frequencyHz / 50),
  };
}

/**
 * A plan to begin with: turns for the wanted volts, wire from the standard series for the load and its share of the
 * primary, at 3 A/mm2.
 * @param openV wanted open-circuit volts of one winding or half; @param loadA its RMS current
 */
export function plannedWinding(
  core: Pick<Lamination, 'areaMm2' | 'windowMm2' | 'meanTurnMm' | 'fluxT'>,
  tenTurnsV: number | null,
  openV: number,
  loadA: number,
  nominalV: number,
  frequencyHz: number,
  halves: 1 | 2,
): WindingPlan {
  const perVolt = tenTurnsV === null ? null : 10 / tenTurnsV;
  const tpv = perVolt ?? turnsPerVolt(core.areaMm2, core.fluxT, frequencyHz);
  const wire = (amps: number) => WIRE_MM.find((mm) => mm >= wireFor(amps, 3) - 1e-9) ?? WIRE_MM[WIRE_MM.length - 1]!;
  const { areaMm2, windowMm2, meanTurnMm, fluxT } = core;
  return {
    areaMm2,
    windowMm2,
    meanTurnMm,
    fluxT,
    turnsPerVolt: perVolt,
    primaryTurns: Math.round(nominalV * tpv),
    primaryWireMm: wire((1.1 * halves ** 0.5 * loadA * openV) / nominalV),
    secondaryTurns: Math.ceil(openV * tpv - 1e-9),
    secondaryWireMm: wire(loadA),
  };
}

/** Copper loss of a plan at given RMS currents, warm, W. */
export function woundLoss(wound: Wound, secondaryA: number, primaryA: number, halves: number, hotC: number): number {
  return copperRatio(hotC) * (halves * wound.secondaryOhm * secondaryA ** 2 + wound.primaryOhm * primaryA ** 2);
}

import { FAILS_ANYWAY, always, fallingRejection, pinCapacitors, wiredCapacitor, type RegulatorModel } from './model';

/** Copper under the tab against thermal resistance, one side, 35 um: [cm2, K/W]. */
const BOARD_COPPER: readonly (readonly [number, number])[] = [
  [0.5, 140],
  [6, 58],
  [12, 45],
  [25, 35],
];

/** Junction to air of a small part cooled by board copper alone, K/W: between the known points on a logarithmic scale. */
export function boardKPerW(cm2: number): number {
  const table = BOARD_COPPER;
  if (cm2 <= table[0]![0]) return table[0]![1];
  for (let n = 1; n < table.length; n++) {
    const [a1, r1] = table[n]!;
    const [a0, r0] = table[n - 1]!;
    if (cm2 <= a1) return r0 + ((r1 - r0) * Math.log(cm2 / a0)) / Math.log(a1 / a0);
  }
  return table[table.length - 1]![1];
}

export const LOW_DROPOUT_PARTS = {
  'ldo-250': {
    name: 'Low-dropout 250 mA, SOT-223',
    ratedA: 0.25,
    dropoutV: 0.4,
    dropoutIdleV: 0.1,
    inputMaxV: 12,
    jcKPerW: 20,
    board: true,
    quiescentA: 1e-4,
    rejectionDb: 60,
    esr: 'Output 1 µF or more, ceramic allowed.',
    outputF: 1e-6,
    priceEur: 0.4,
  },
  'ldo-800': {
    name: 'Low-dropout 800 mA (1117), SOT-223',
    ratedA: 0.8,
    dropoutV: 1.2,
    // 1.1 V at 100 mA.
    dropoutIdleV: 1.086,
    inputMaxV: 15,
    jcKPerW: 15,
    board: true,
    quiescentA: 0.005,
    rejectionDb: 60,
    esr: 'Output 10 µF with an ESR of 0.1 to 1 Ω: tantalum or electrolytic, no bare ceramic.',
    outputF: 10e-6,
    priceEur: 0.35,
  },
  'ldo-1a5': {
    name: 'Low-dropout 1.5 A, TO-220',
    ratedA: 1.5,
    dropoutV: 0.5,
    dropoutIdleV: 0.125,
    inputMaxV: 26,
    jcKPerW: 3,
    board: false,
    quiescentA: 0.01,
    rejectionDb: 60,
    esr: 'Output 22 µF with an ESR of 0.1 to 1 Ω.',
    outputF: 22e-6,
    priceEur: 1.4,
  },
  'ldo-3a': {
    name: 'Low-dropout 3 A, TO-220',
    ratedA: 3,
    dropoutV: 0.6,
    dropoutIdleV: 0.15,
    inputMaxV: 20,
    jcKPerW: 2,
    board: false,
    quiescentA: 0.02,
    rejectionDb: 55,
    esr: 'Output 47 µF with an ESR of 0.05 to 1 Ω.',
    outputF: 47e-6,
    priceEur: 2.2,
  },
} as const;
export type LowDropoutId = keyof typeof LOW_DROPOUT_PARTS;

export interface LowDropoutRegulator {
  kind: 'low-dropout';
  part: LowDropoutId;
  outputV: number;
  /** Copper under a part that has no sink, cm2. */
  boardCm2: number;
}

/** A low-dropout regulator: dropout grows with current and warmth, its input bears little, its capacitor matters. */
export function lowDropoutModel(r: LowDropoutRegulator): RegulatorModel {
  const part = LOW_DROPOUT_PARTS[r.part];
  const atPins = pinCapacitors(1e-6, part.outputF);
  return {
    family: 'low-dropout',
    name: part.name,
    outputV: r.outputV,
    lowestV: r.outputV,
    spread: 0.02,
    spreadSource: 'Output accuracy of the class, ±2 %.',
    dropoutV: part.dropoutIdleV,
    dropoutOhm: (part.dropoutV - part.dropoutIdleV) / part.ratedA,
    dropoutVPerK: 0.002 * part.dropoutV,
    ratedA: part.ratedA,
    limitA: 1.4 * part.ratedA,
    shortA: always(1.2 * part.ratedA),
    limitsItself: true,
    failsTo: FAILS_ANYWAY,
    quiescentA: part.quiescentA,
    drains: () => [],
    passShare: 1,
    outputOhm: 0,
    // Of those whose output is made in, their own current leaves by the ground lead.
    minimumLoadA: 0,
    minimumTypicalA: 0,
    dividerA: 0,
    inputMaxV: part.inputMaxV,
    inputLimitSource: `Input maximum of the class, ${part.inputMaxV} V.`,
    rejectionDb: fallingRejection(part.rejectionDb, 1000),
    noiseV: 4e-5 * r.outputV,
    pass: {
      package: part.board ? 'SOT-223' : 'TO-220',
      tab: part.board ? 'output' : 'ground',
      pins: part.board ? 'ground, output, input; the tab is the output' : 'input, ground, output',
      takesSink: !part.board,
      count: 1,
      fitted: 1,
      jcKPerW: part.jcKPerW,
      jaKPerW: part.board ? boardKPerW(r.boardCm2) : 55,
      junctionMaxC: 125,
      safeA: null,
    },
    burners: [],
    capacitors: part.esr,
    small: atPins,
    wired: [
      wiredCapacitor(atPins[0]!, 'in', 'ground'),
      {
        kind: 'regulator',
        what: 'holds the output',
        carriesLoad: true,
        name: part.name,
        value: null,
        unit: '',
        pins: { in: 'in', ground: 'ground', out: 'out' },
      },
      wiredCapacitor(atPins[1]!, 'out', 'ground'),
    ],
    settings: [],
    priceEur: part.priceEur,
  };
}

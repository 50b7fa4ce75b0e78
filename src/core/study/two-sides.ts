import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import type { Figure } from './figure';
import { bankOptions, canLife, GRADE_HOURS, type BankOption } from './can-choice';
import { operatingPoint } from './operating-point';
import { CONDITIONS } from '@/core/circuit/condition';
import { heatView } from './heat-report';
import { SMALL_EUR } from './cost';

/** Questions builders answer differently, each for good reasons of its own. */
export type Question = 'bank' | 'grade' | 'switch' | 'precision';

/** One answer, with what it comes to in this design. */
export interface OneSide {
  name: string;
  /** When it is right. */
  right: string;
  figures: Figure[];
  patch: Patch;
  /** Whether the design has it now. */
  here: boolean;
}

/** Both answers to a question, on this design's own values; none where the question has no meaning in it. @throws SolveError */
export function twoSides(design: Design, question: Question): OneSide[] {
  if (question === 'bank') return bankSides(design);
  if (question === 'grade') return ([85, 105] as const).flatMap((gradeC) => gradeSide(design, gradeC));
  if (question === 'switch') return ([1, 2] as const).map((poles) => switchSide(design, poles));
  return precisionSides(design);
}

/** Of a bank of many so many stand for it. */
const MANY = 4;

function bankSides(design: Design): OneSide[] {
  if (design.reservoir.capacitanceF <= 0) return [];
  return bankOptions(design)
    .filter((o) => o.reservoir.cans === 1 || o.reservoir.cans === MANY)
    .map((option) => bankSide(design, option));
}

function bankSide(design: Design, { reservoir, esrOhm, rippleA, heightMm, priceEur }: BankOption): OneSide {
  const one = reservoir.cans === 1;
  const patch: Patch = { reservoir };
  const valley = operatingPoint(applyPatch(design, patch), CONDITIONS.low).rail.minV;
  const typical = (label: string, value: number, unit: Figure['unit'], expression: string): Figure => ({
    id: `${reservoir.cans} ${label}`,
    label,
    value,
    unit,
    origin: label === 'Price' || label === 'Height' ? 'rule of thumb' : 'typical',
    expression,
    inputs: [
      { label: 'cans', value: reservoir.cans, unit: '' },
      { label: 'each', value: reservoir.capacitanceF, unit: 'F' },
    ],
    source: 'Typical of cans of this charge.',
    assumes: [],
  });
  return {
    name: one ? 'One large can' : `${MANY} smaller cans`,
    right: one
      ? 'Right where there is height and one clamp is welcome: two joints, one part to fail, and none that does more than its share.'
      : 'Right where the box is low, where ripple current is what decides, or where a board is to hold them: together they have a fraction of the resistance and bear more, and they screen what stands behind.',
    figures: [
      {
        id: `valley-${reservoir.cans}`,
        label: 'Valley, low line',
        value: valley,
        unit: 'V',
        origin: 'simulated',
        condition: 'low line, full load',
        expression: 'lowest point of the ripple',
        inputs: [{ label: 'cans', value: reservoir.cans, unit: '' }],
        source: 'The same solver as the design’s own verdicts.',
        assumes: [],
      },
      typical('ESR together', esrOhm, 'ohm', 'ESR of one ÷ cans'),
      typical('Ripple they bear', rippleA, 'A', 'rating of one × cans'),
      typical('Height', heightMm, 'mm', 'by what one can stores'),
      typical('Price', priceEur, 'EUR', 'price of one × cans'),
    ],
    patch,
    here: design.reservoir.cans === reservoir.cans,
  };
}

function gradeSide(design: Design, gradeC: 85 | 105): OneSide[] {
  const patch: Patch = { reservoir: { gradeC } };
  const rows = heatView(applyPatch(design, patch), 'high', null)?.rows ?? [];
  const core = rows.find((r) => r.id === 'reservoir')?.steps.at(-1)?.tempC;
  if (core === undefined) return [];
  const { hours } = canLife({ hours: GRADE_HOURS, gradeC }, core, 0);
  return [
    {
      name: `${gradeC} °C cans`,
      right:
        gradeC === 85
          ? 'Right where the box stays cool and the supply runs some hours a week: the can outlives the design, and is cheaper and easier to get.'
          : 'Right beside a sink, in a closed box, or where it is never switched off: each ten kelvins between core and grade double its life.',
      figures: [
        {
          id: `core-${gradeC}`,
          label: 'Core, high line',
          value: core,
          unit: '°C',
          origin: 'simulated',
          condition: 'high line, lasting load',
          expression: 'air around it + what its ripple current adds',
          inputs: [{ label: 'grade', value: gradeC, unit: '°C', origin: 'chosen' }],
          source: 'The same heat chain as the Heat room.',
          assumes: [],
        },
        {
          id: `life-${gradeC}`,
          label: 'Lasts, running',
          value: hours,
          unit: 'h',
          origin: 'rule of thumb',
          expression: 'hours at its grade × 2^((grade − core) / 10 K)',
          inputs: [
            { label: 'hours at its grade', value: GRADE_HOURS, unit: 'h', origin: 'typical' },
            { label: 'grade', value: gradeC, unit: '°C' },
            { label: 'core', value: core, unit: '°C', origin: 'simulated' },
          ],
          source: 'The ten-kelvin rule for electrolytics.',
          assumes: ['A can that is never charged ages as well.'],
        },
      ],
      patch,
      here: design.reservoir.gradeC === gradeC,
    },
  ];
}

function switchSide({ mains, mainsSide }: Design, poles: 1 | 2): OneSide {
  const live = poles === 1 && !mainsSide.polarised;
  return {
    name: poles === 1 ? 'One pole' : 'Both poles',
    right:
      poles === 1
        ? 'Right where plugs go in one way round only and the sockets are wired as they should be: it breaks the live pole, and one contact less can fail.'
        : 'Right where a plug goes in either way round, where nobody knows how a socket is wired, and always with a cord that is plugged into the box. Local codes may ask for it.',
    figures: [
      {
        id: `live-${poles}`,
        label: 'Left on the primary, off',
        value: live ? mains.voltageRms : 0,
        unit: 'V',
        origin: 'formula',
        condition: live ? 'plug in the other way round: one of two ways' : 'either way the plug goes in',
        expression: live ? 'the pole that is not broken is the live one' : 'no pole that can be live is left joined',
        inputs: [{ label: 'mains', value: mains.voltageRms, unit: 'V' }],
        source: 'From the plug and the poles chosen on the mains side.',
        assumes: poles === 1 && mainsSide.polarised ? ['Sockets and extension leads wired as they should be.'] : [],
      },
      {
        id: `switch-price-${poles}`,
        label: 'Switch',
        value: SMALL_EUR.switch[poles],
        unit: 'EUR',
        origin: 'rule of thumb',
        expression: 'typical price in hobby quantities',
        inputs: [],
        source: 'Typical.',
        assumes: [],
      },
    ],
    patch: { mainsSide: { switchPoles: poles } },
    here: mainsSide.switchPoles === poles,
  };
}

/** Parts of a bench regulator that are chosen for precision, per cent: what a purist buys, and what lies in the drawer. */
const PRECISE = { shuntPct: 1, resistorPct: 0.1, referencePct: 0.5 } as const;
const COMMON = { shuntPct: 5, resistorPct: 1, referencePct: 2 } as const;
/** What the precise ones cost more, EUR; rule of thumb. */
const PRECISE_EUR = 6;

function precisionSides(design: Design): OneSide[] {
  const { regulator } = design;
  if (regulator.kind !== 'bench') return [];
  const side = (name: string, right: string, with_: typeof PRECISE | typeof COMMON, eur: number): OneSide => {
    const made = { ...regulator, ...with_ };
    const patch: Patch = { regulator: made };
    const settings = mainModel(applyPatch(design, patch))!.settings;
    const wanted = ['Voltage error, worst case', 'Current error, worst case'];
    const figures = settings
      .filter((s) => wanted.includes(s.label))
      .flatMap((s): Figure[] => {
        const full = s.label.startsWith('Voltage') ? regulator.maxV : regulator.limitA;
        const unit = s.label.startsWith('Voltage') ? 'V' : 'A';
        return [
          { ...s, id: `${name} ${s.label}`, origin: 'formula', source: 'Errors added up at their worst.', assumes: [] },
          {
            id: `${name} ${s.label} at full scale`,
            label: `which is, at ${full} ${unit}`,
            value: (full * s.value) / 100,
            unit,
            origin: 'formula',
            expression: 'top of the knob × error',
            inputs: [
              { label: 'top', value: full, unit },
              { label: 'error', value: s.value, unit: '%' },
            ],
            source: 'Errors added up at their worst.',
            assumes: [],
          },
        ];
      });
    const price: Figure = {
      id: `${name} price`,
      label: 'More for it',
      value: eur,
      unit: 'EUR',
      origin: 'rule of thumb',
      expression: 'precise reference, shunt and resistors over common ones',
      inputs: [],
      source: 'Typical, hobby quantities.',
      assumes: [],
    };
    const here = Object.entries(with_).every(
      ([key, pct]) => (regulator as unknown as Record<string, number>)[key] === pct,
    );
    return { name, right, figures: [...figures, price], patch, here };
  };
  return [
    side(
      'Precise parts',
      'Right where a knob’s scale is to be believed without a meter, where several supplies have to agree, or where nothing may be trimmed after.',
      PRECISE,
      PRECISE_EUR,
    ),
    side(
      'Common parts, and accept it',
      'Right where a meter hangs on the output anyway: the error is read once, written beside the knob, and does no harm.',
      COMMON,
      0,
    ),
  ];
}

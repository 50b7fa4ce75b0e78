import * as yup from 'yup';
import { firstFault, type Fault } from '@/core/design/fault';
import { diodeCount } from '@/core/parts/arrangement';
import { factsOf } from '@/core/parts/arrangement-facts';
import { ARRANGEMENTS, RECTIFIER_KINDS } from '@/core/parts/arrangements';
import { type DiodeFault, type FilterElement, type Load, type Network, type Rail, type Run } from './network';

/** A case that cannot be calculated, with the place of the first fault ('rails[0].filter[1].kind'). */
export class CaseError extends Error {
  override readonly name = 'CaseError';
  constructor(
    readonly path: string,
    sentence: string,
  ) {
    super(path ? `${path}: ${sentence}` : sentence);
  }
}

export const finite = () =>
  yup
    .number()
    .strict(true)
    .typeError('${path} has to be a plain number')
    .test('finite', '${path} has to be a finite number', (v) => v === undefined || Number.isFinite(v));
export const positive = () => finite().required('${path} is missing').moreThan(0, '${path} has to be more than 0');
export const notNegative = () => finite().min(0, '${path} cannot be negative');

/** Wires and windings of zero ohm are fine; what no part reaches is a slip of the unit. */
const MOST = 1e9;
const within = () => positive().max(MOST, '${path} is more than 1e9');

/** An object of which every key is known: a misspelt one would be left out without a word. */
export const closed = <S extends yup.ObjectShape>(shape: S) => yup.object(shape).noUnknown(true);

/** The first fault of a failed validation; of an unknown key its own path. */
export function caseFault(error: unknown): Fault {
  const fault = firstFault(error);
  const inner = (error as yup.ValidationError).inner[0] ?? (error as yup.ValidationError);
  if (inner.type !== 'noUnknown') return fault;
  const [key] = String(inner.params?.['unknown']).split(', ');
  return { path: fault.path ? `${fault.path}.${key}` : key!, sentence: 'no case has such a key' };
}

const ELEMENT_KINDS = ['capacitor', 'inductor', 'resistor'] as const;
const element = yup.lazy((value: unknown) => {
  const kind = (value as { kind?: unknown } | null)?.kind;
  const named = {
    kind: yup
      .string<(typeof ELEMENT_KINDS)[number]>()
      .required('${path} is missing')
      .oneOf([...ELEMENT_KINDS], '${path} ${value} is not a filter element (capacitor, inductor, resistor)'),
  };
  if (kind === 'capacitor') return closed({ ...named, capacitanceF: within(), esrOhm: notNegative().default(0) });
  if (kind === 'inductor') return closed({ ...named, inductanceH: within(), resistanceOhm: notNegative().default(0) });
  if (kind === 'resistor') return closed({ ...named, resistanceOhm: notNegative().required('${path} is missing') });
  return yup.object(named);
});

const LOAD_KINDS = ['resistance', 'current', 'regulator', 'power'] as const;
type CaseLoad = { kind: (typeof LOAD_KINDS)[number] } & Record<string, unknown>;
const load = yup.lazy((value: unknown) => {
  const kind = (value as { kind?: unknown } | null)?.kind;
  const named = {
    kind: yup
      .string()
      .required('${path} is missing')
      .oneOf([...LOAD_KINDS], '${path} ${value} is not a load (resistance, current, regulator, power)'),
  };
  if (kind === 'resistance') return closed({ ...named, resistanceOhm: positive() });
  if (kind === 'current') return closed({ ...named, currentA: notNegative().required('${path} is missing') });
  if (kind === 'regulator') {
    return closed({
      ...named,
      outputV: positive(),
      dropoutV: notNegative().required('${path} is missing'),
      currentA: notNegative().required('${path} is missing'),
      quiescentA: notNegative().default(0),
    });
  }
  if (kind === 'power')
    return closed({ ...named, powerW: notNegative().required('${path} is missing'), minV: positive() });
  return yup.object(named);
});

const caseSchema = closed({
  id: yup.string().strict(true),
  frequencyHz: positive(),
  source: closed({
    voltageRms: positive(),
    resistanceOhm: notNegative().default(0),
    inductanceH: notNegative().default(0),
    sharedResistanceOhm: notNegative().default(0),
    flatTop: notNegative().lessThan(1, '${path} has to be below 1').default(0),
  }).required('${path} is missing'),
  rectifier: closed({
    kind: yup
      .string()
      .required('${path} is missing')
      .oneOf([...RECTIFIER_KINDS], `\${path} is \${value}: it can be ${RECTIFIER_KINDS.join(', ')}`),
    diode: closed({
      saturationCurrentA: positive(),
      emissionCoefficient: positive(),
      seriesResistanceOhm: notNegative().default(0),
      temperatureC: finite().moreThan(-273.15, '${path} lies below absolute zero').default(25),
    }).required('${path} is missing'),
    faults: yup
      .array()
      .of(
        closed({
          diode: finite().required('${path} is missing').integer('${path} has to be a whole number'),
          state: yup
            .string<'open' | 'short'>()
            .required('${path} is missing')
            .oneOf(['open', 'short'], '${path} is ${value}: a diode can be open or short'),
        }),
      )
      .default([]),
  }).required('${path} is missing'),
  rails: yup
    .array()
    .required('${path} is missing')
    .of(
      closed({
        filter: yup.array().of(element).max(40, '${path} holds more than 40 elements').default([]),
        load: yup.lazy((value: unknown) =>
          Array.isArray(value)
            ? yup.array().of(load).min(1, '${path} is empty')
            : yup
                .mixed()
                .required('${path} is missing')
                .test('load', 'is not a load', (v, ctx) => {
                  try {
                    load.validateSync(v, { strict: true });
                    return true;
                  } catch (error) {
                    const fault = caseFault(error);
                    return ctx.createError({
                      path: fault.path ? `${ctx.path}.${fault.path}` : ctx.path,
                      message: fault.sentence,
                    });
                  }
                }),
        ),
      }),
    ),
  run: closed({
    kind: yup
      .string()
      .required('${path} is missing')
      .oneOf(['steady', 'start', 'step', 'dip'] as const, '${path} is ${value}: it can be steady, start, step or dip'),
    cycles: finite()
      .integer('${path} has to be a whole number')
      .min(1, '${path} has to be at least 1')
      .max(10_000, '${path} is more than 10000')
      .when('kind', { is: (kind: string) => kind !== 'steady', then: (s) => s.required('${path} is missing') }),
    switchOnPhaseDeg: finite().default(0),
    fromA: notNegative().when('kind', { is: 'step', then: (s) => s.required('${path} is missing') }),
    toA: notNegative().when('kind', { is: 'step', then: (s) => s.required('${path} is missing') }),
    missingCycles: finite()
      .moreThan(0, '${path} has to be more than 0')
      .when('kind', { is: 'dip', then: (s) => s.required('${path} is missing') }),
    atCycle: notNegative().default(0),
  }).default(() => ({ kind: 'steady' as const, switchOnPhaseDeg: 0, atCycle: 0 }) as never),
});

/**
 * Reads one case object.
 * @throws CaseError with the path and a sentence for the first thing that is wrong
 */
export function readCase(json: unknown): { network: Network; run: Run } {
  if (json === null || typeof json !== 'object' || Array.isArray(json))
    throw new CaseError('', 'a case has to be a JSON object');
  try {
    caseSchema.validateSync(json, { strict: true, abortEarly: false });
  } catch (error) {
    const fault = caseFault(error);
    throw new CaseError(fault.path, fault.sentence);
  }
  const c = caseSchema.cast(json, { assert: false });
  const arrangement = ARRANGEMENTS[c.rectifier.kind];
  const count = arrangement.rails;
  if (c.rails.length !== count) {
    throw new CaseError(
      'rails',
      `it holds ${c.rails.length}, a ${c.rectifier.kind} has ${count === 1 ? 'one rail' : 'two rails'}`,
    );
  }
  const rails: Rail[] = c.rails.map((rail) => ({
    filter: rail.filter as unknown as FilterElement[],
    load: ((Array.isArray(rail.load) ? rail.load : [rail.load]) as CaseLoad[]).map(withQuiescent),
  }));
  if (factsOf(arrangement).ownCans && rails[0]!.filter[0]?.kind !== 'capacitor') {
    throw new CaseError(
      'rails[0].filter[0]',
      `a ${c.rectifier.kind} has to start with a capacitor, which stands for all of its own`,
    );
  }
  const faults = checkedFaults(c.rectifier.faults, diodeCount(arrangement));
  const { inductanceH, sharedResistanceOhm, flatTop, ...winding } = c.source;
  return {
    network: {
      ...(c.id === undefined ? {} : { id: c.id }),
      frequencyHz: c.frequencyHz,
      mains: { sharedResistanceOhm, flatTop },
      sections: [
        {
          winding: { ...winding, inductanceH },
          rectifier: { kind: c.rectifier.kind, diode: c.rectifier.diode, ...(faults.length > 0 ? { faults } : {}) },
          rails,
        },
      ],
    },
    run: checkedRun((c as unknown as { run: RunFields }).run, rails[0]!),
  };
}

function checkedFaults(faults: readonly DiodeFault[], diodes: number): DiodeFault[] {
  faults.forEach((fault, n) => {
    const path = `rectifier.faults[${n}].diode`;
    if (fault.diode < 0 || fault.diode >= diodes) {
      throw new CaseError(path, `it is ${fault.diode}, the diodes of this rectifier count from 0 to ${diodes - 1}`);
    }
    if (faults.findIndex((f) => f.diode === fault.diode) !== n) {
      throw new CaseError(path, `diode ${fault.diode} is listed twice`);
    }
  });
  return faults.map(({ diode, state }) => ({ diode, state }));
}

interface RunFields {
  kind: Run['kind'];
  cycles: number;
  switchOnPhaseDeg: number;
  fromA: number;
  toA: number;
  missingCycles: number;
  atCycle: number;
}

function checkedRun(run: RunFields, first: Rail): Run {
  switch (run.kind) {
    case 'steady':
      return { kind: 'steady' };
    case 'start':
      return { kind: 'start', cycles: run.cycles, switchOnPhaseDeg: run.switchOnPhaseDeg };
    case 'step':
      if (steppedLoad(first.load) < 0) {
        throw new CaseError('run', 'a step needs a load with a current (current or regulator) on the first rail');
      }
      return { kind: 'step', fromA: run.fromA, toA: run.toA, cycles: run.cycles };
    case 'dip':
      if (run.atCycle + run.missingCycles > run.cycles * (1 + 1e-12)) {
        throw new CaseError(
          'run.missingCycles',
          `the dip ends at cycle ${run.atCycle + run.missingCycles}, after the run of ${run.cycles}`,
        );
      }
      return { kind: 'dip', missingCycles: run.missingCycles, cycles: run.cycles, atCycle: run.atCycle };
  }
}

/** What hangs on one rail: one load or a list of them. @throws CaseError with the path and a sentence */
export function readLoads(json: unknown, path: string): Load[] {
  const list = Array.isArray(json) ? json : [json];
  if (list.length === 0) throw new CaseError(path, 'it is empty');
  return list.map((item, n) => {
    try {
      load.validateSync(item, { strict: true, abortEarly: false });
    } catch (error) {
      const fault = caseFault(error);
      const here = Array.isArray(json) ? `${path}[${n}]` : path;
      throw new CaseError(fault.path ? `${here}.${fault.path}` : here, fault.sentence);
    }
    return withQuiescent(item as CaseLoad);
  });
}

/** A regulator of which nothing is said of its own current takes none. */
const withQuiescent = (l: CaseLoad): Load => (l.kind === 'regulator' ? { quiescentA: 0, ...l } : l) as unknown as Load;

/** Index of the load a step changes: the first of the rail that has a current. -1 when there is none. */
export function steppedLoad(loads: readonly Load[]): number {
  return loads.findIndex((l) => l.kind === 'current' || l.kind === 'regulator');
}

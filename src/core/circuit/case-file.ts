import * as yup from 'yup';
import { firstFault } from '@/core/design/fault';
import type { Network, Run } from './network';

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

const finite = () =>
  yup
    .number()
    .strict(true)
    .typeError('${path} has to be a plain number')
    .test('finite', '${path} has to be a finite number', (v) => v === undefined || Number.isFinite(v));
const positive = () => finite().required('${path} is missing').moreThan(0, '${path} has to be more than 0');
const notNegative = () => finite().min(0, '${path} cannot be negative');

const capacitor = yup.object({
  kind: yup
    .string<'capacitor'>()
    .required('${path} is missing')
    .oneOf(['capacitor'], '${path} is ${value}: only a reservoir capacitor can be solved here'),
  capacitanceF: positive(),
  esrOhm: notNegative().default(0),
});

const LOAD_KINDS = ['resistance', 'current', 'regulator'] as const;
type CaseLoad = { kind: (typeof LOAD_KINDS)[number] } & Record<string, unknown>;
const load = yup.lazy((value: unknown) => {
  const kind = (value as { kind?: unknown } | null)?.kind;
  const named = {
    kind: yup
      .string()
      .required('${path} is missing')
      .oneOf(
        [...LOAD_KINDS],
        '${path} ${value} is not a load that can be solved here (resistance, current, regulator)',
      ),
  };
  if (kind === 'resistance') return yup.object({ ...named, resistanceOhm: positive() });
  if (kind === 'current') return yup.object({ ...named, currentA: notNegative().required('${path} is missing') });
  if (kind === 'regulator') {
    return yup.object({
      ...named,
      outputV: positive(),
      dropoutV: notNegative().required('${path} is missing'),
      currentA: notNegative().required('${path} is missing'),
      quiescentA: notNegative().default(0),
    });
  }
  return yup.object(named);
});

const caseSchema = yup.object({
  id: yup.string().strict(true),
  frequencyHz: positive(),
  source: yup
    .object({
      voltageRms: positive(),
      resistanceOhm: notNegative().default(0),
      inductanceH: notNegative().max(0, '${path} is ${value}: leakage inductance cannot be solved here').default(0),
      sharedResistanceOhm: notNegative().default(0),
      flatTop: notNegative().lessThan(1, '${path} has to be below 1').default(0),
    })
    .required('${path} is missing'),
  rectifier: yup
    .object({
      kind: yup
        .string()
        .required('${path} is missing')
        .oneOf(
          ['half-wave', 'centre-tap', 'bridge'] as const,
          '${path} is ${value}: half-wave, centre-tap and bridge can be solved here',
        ),
      diode: yup
        .object({
          saturationCurrentA: positive(),
          emissionCoefficient: positive(),
          seriesResistanceOhm: notNegative().default(0),
          temperatureC: finite().moreThan(-273.15, '${path} lies below absolute zero').default(25),
        })
        .required('${path} is missing'),
      faults: yup.array().max(0, '${path} is not empty: faulted diodes cannot be solved here'),
    })
    .required('${path} is missing'),
  rails: yup
    .array()
    .required('${path} is missing')
    .length(1, '${path} has to hold exactly one rail for this rectifier')
    .of(
      yup.object({
        filter: yup.array().of(capacitor).max(1, '${path} may hold one reservoir capacitor here').default([]),
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
                    const fault = firstFault(error);
                    return ctx.createError({
                      path: fault.path ? `${ctx.path}.${fault.path}` : ctx.path,
                      message: fault.sentence,
                    });
                  }
                }),
        ),
      }),
    ),
  run: yup
    .object({
      kind: yup
        .string()
        .required('${path} is missing')
        .oneOf(['steady', 'start'] as const, '${path} is ${value}: steady and start runs can be solved here'),
      cycles: finite()
        .integer('${path} has to be a whole number')
        .min(1, '${path} has to be at least 1')
        .max(10_000, '${path} is more than 10000')
        .when('kind', { is: 'start', then: (s) => s.required('${path} is missing') }),
      switchOnPhaseDeg: finite().default(0),
    })
    .default({ kind: 'steady', cycles: undefined, switchOnPhaseDeg: 0 }),
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
    const fault = firstFault(error);
    throw new CaseError(fault.path, fault.sentence);
  }
  const c = caseSchema.cast(json, { assert: false });
  const rail = c.rails[0]!;
  const loads = ((Array.isArray(rail.load) ? rail.load : [rail.load]) as CaseLoad[]).map((l) =>
    l.kind === 'regulator' ? { quiescentA: 0, ...l } : l,
  ) as unknown as Network['rail']['load'];
  const { inductanceH: _none, ...source } = c.source;
  void _none;
  return {
    network: {
      ...(c.id === undefined ? {} : { id: c.id }),
      frequencyHz: c.frequencyHz,
      source,
      rectifier: { kind: c.rectifier.kind, diode: c.rectifier.diode },
      rail: { filter: rail.filter, load: loads },
    },
    run:
      c.run.kind === 'start'
        ? { kind: 'start', cycles: c.run.cycles!, switchOnPhaseDeg: c.run.switchOnPhaseDeg }
        : { kind: 'steady' },
  };
}

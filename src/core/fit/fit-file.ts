import * as yup from 'yup';
import { CaseError, caseFault, closed, finite, positive, readCase, readLoads } from '@/core/circuit/case-file';
import type { Network } from '@/core/circuit/network';
import { SolveError } from '@/core/solve/solve-error';
import type { Reading, Unknown } from './belief';
import { CaseSolver, numberAt, resultAt, unloaded, withNumbers, type CaseState } from './case-model';
import { fit } from './fit';
import { foretell } from './foretell';
import type { Predict } from './posterior';

/** A state of the circuit with the places in its result that are read or asked for there. */
export interface CaseRow extends CaseState {
  at: string[];
}

/** What a file of readings says. */
export interface ReadingsFile {
  circuit: Network;
  referenceMainsV: number;
  rows: CaseRow[];
  /** In the order of the rows and of the places in each. */
  readings: Reading[];
}

export interface FitFile extends ReadingsFile {
  unknowns: Unknown[];
  asked: CaseRow[];
}

const MOST_ROWS = 500;

const place = () => yup.string().strict(true).required('${path} is missing').max(120);
const state = { mainsV: positive(), loads: yup.array().required('${path} is missing') };
const readingsShape = {
  circuit: yup.mixed().required('${path} is missing'),
  referenceMainsV: positive(),
  readings: yup
    .array()
    .required('${path} is missing')
    .max(MOST_ROWS, `\${path} holds more than ${MOST_ROWS} rows`)
    .of(
      closed({
        ...state,
        read: yup
          .array()
          .required('${path} is missing')
          .max(MOST_ROWS, `\${path} holds more than ${MOST_ROWS} readings`)
          .of(
            closed({
              at: place(),
              value: finite().required('${path} is missing'),
              sigma: positive(),
            }),
          ),
      }),
    ),
};
const readingsSchema = closed(readingsShape);
const fitSchema = closed({
  ...readingsShape,
  fit: yup
    .array()
    .required('${path} is missing')
    .max(40, '${path} holds more than 40 unknowns')
    .of(
      closed({
        path: place(),
        relativeSigma: positive().max(5, '${path} is more than 5: such a belief says nothing'),
      }),
    ),
  predict: yup
    .array()
    .default([])
    .max(MOST_ROWS, `\${path} holds more than ${MOST_ROWS} rows`)
    .of(closed({ ...state, at: yup.array().required('${path} is missing').of(place()) })),
});

function validated<T>(schema: yup.Schema<T>, json: unknown): T {
  if (json === null || typeof json !== 'object' || Array.isArray(json))
    throw new CaseError('', 'a file of readings has to be a JSON object');
  try {
    return schema.validateSync(json, { strict: true, abortEarly: false });
  } catch (error) {
    const fault = caseFault(error);
    throw new CaseError(fault.path, fault.sentence);
  }
}

/** Runs what reads a part of the file, its fault's path under that part's own. */
function under<T>(path: string, work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (!(error instanceof CaseError)) throw error;
    const sentence = error.path ? error.message.slice(error.path.length + 2) : error.message;
    throw new CaseError(error.path ? `${path}.${error.path}` : path, sentence);
  }
}

type Shape = yup.InferType<typeof readingsSchema>;

function readingsOf(file: Shape): ReadingsFile {
  const { network, run } = under('circuit', () => readCase(file.circuit));
  if (run.kind !== 'steady') throw new CaseError('circuit.run', 'readings are of a steady state: leave it out');
  const circuit = unloaded(network);
  const rows = file.readings.map((row, n) =>
    rowOf(
      circuit,
      row,
      row.read.map((r) => r.at),
      `readings[${n}]`,
    ),
  );
  return {
    circuit,
    referenceMainsV: file.referenceMainsV,
    rows,
    readings: file.readings.flatMap((row) => row.read.map(({ value, sigma }) => ({ value, sigma }))),
  };
}

function rowOf(circuit: Network, row: { mainsV: number; loads: unknown[] }, at: string[], path: string): CaseRow {
  const rails = circuit.sections[0]!.rails.length;
  if (row.loads.length !== rails) {
    throw new CaseError(
      `${path}.loads`,
      `it holds ${row.loads.length}, the circuit has ${rails === 1 ? 'one rail' : 'two rails'}`,
    );
  }
  return { mainsV: row.mainsV, loads: row.loads.map((l, r) => readLoads(l, `${path}.loads[${r}]`)), at };
}

/** Reads a file to diagnose. @throws CaseError with the path and a sentence for the first thing that is wrong */
export function readReadingsFile(json: unknown): ReadingsFile {
  const file = readingsOf(validated(readingsSchema, json));
  checkPlaces(file, file.rows, (n, k) => `readings[${n}].read[${k}].at`);
  return file;
}

/** Reads a file to fit. @throws CaseError with the path and a sentence for the first thing that is wrong */
export function readFitFile(json: unknown): FitFile {
  const shape = validated(fitSchema, json);
  const { fit: wanted, predict = [], ...rest } = shape;
  const file = readingsOf(rest as Shape);
  const unknowns = wanted.map((w, n) => {
    const centre = numberAt(file.circuit, w.path);
    const path = `fit[${n}].path`;
    if (centre === null) throw new CaseError(path, `the circuit has no number at ${w.path}`);
    if (!(centre > 0))
      throw new CaseError(path, `${w.path} is ${centre}: a spread of its logarithm needs a value above 0`);
    if (wanted.findIndex((o) => o.path === w.path) !== n) throw new CaseError(path, `${w.path} is listed twice`);
    return { id: w.path, centre, spread: w.relativeSigma };
  });
  const asked = predict.map((row, n) => rowOf(file.circuit, row, row.at, `predict[${n}]`));
  checkPlaces(file, file.rows, (n, k) => `readings[${n}].read[${k}].at`);
  checkPlaces(file, asked, (n, k) => `predict[${n}].at[${k}]`);
  return { ...file, unknowns, asked };
}

/** Every place has to be one a result has. */
function checkPlaces(file: ReadingsFile, rows: readonly CaseRow[], path: (row: number, k: number) => string): void {
  const solver = new CaseSolver(file.referenceMainsV);
  rows.forEach((row, n) => {
    const result = solver.result(file.circuit, row);
    row.at.forEach((at, k) => {
      if (resultAt(result, at) === null) throw new CaseError(path(n, k), `a result has no number at ${at}`);
    });
  });
}

/** What every place of the rows comes to, in their order. */
export function predictRows(solver: CaseSolver, network: Network, rows: readonly CaseRow[]): number[] {
  return rows.flatMap((row) => {
    const result = solver.result(network, row);
    return row.at.map((at) => {
      const value = resultAt(result, at);
      if (value === null) throw new SolveError(`there is nothing at ${at}`);
      return value;
    });
  });
}

/** Fits a file and answers in the shape of its result. @throws SolveError */
export function fitFile(file: FitFile): object {
  const { unknowns, readings, rows, asked } = file;
  const paths = unknowns.map((u) => u.id);
  const solver = new CaseSolver(file.referenceMainsV);
  const over =
    (of: readonly CaseRow[]): Predict =>
    (values) =>
      predictRows(solver, withNumbers(file.circuit, paths, values), of);
  const found = fit(unknowns, readings, over(rows));
  const predictions = asked.length > 0 ? foretell(unknowns, found.posterior, over(asked)) : [];
  const where = rows.flatMap((row, n) => row.at.map((at) => ({ row: n, at })));
  return {
    fitted: found.fitted.map(({ id, ...rest }) => ({ path: id, ...rest })),
    readings: where.map((w, n) => ({
      ...w,
      read: readings[n]!.value,
      computed: found.posterior.computed[n]!,
      sigmas: found.posterior.sigmas[n]!,
    })),
    outliers: found.outliers.map((n) => where[n]!),
    predicted: asked.flatMap((row) => row.at).map((at, n) => ({ at, ...predictions[n]! })),
    entangled: found.entangled.map(({ ids, correlation }) => ({ paths: ids, correlation })),
  };
}

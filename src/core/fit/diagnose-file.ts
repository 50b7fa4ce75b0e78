import type { Load, Network } from '@/core/circuit/network';
import { orUnsolved } from '@/core/solve/solve-error';
import { caseFaults, HOW_COMMON, type CaseFault, type FaultName, type Scale } from './case-faults';
import { CaseSolver, numberAt, withNumbers, type CaseState } from './case-model';
import { diagnose, EXPLAINED_SIGMAS, type Hypothesis, type Weighed } from './diagnose';
import { predictRows, type CaseRow, type ReadingsFile } from './fit-file';
import { foretell } from './foretell';
import { expectedGain, type Outlook } from './gain';
import { tolerances } from './tolerances';

interface CaseHypothesis extends Hypothesis {
  of: CaseFault;
  /** Places with its own values put in. */
  over(rows: readonly CaseRow[]): Hypothesis['predict'];
}

/** Weighs every fault a file's circuit can have and answers in the shape of its result. @throws SolveError */
export function diagnoseFile(file: ReadingsFile): object {
  const solver = new CaseSolver(file.referenceMainsV);
  const expected = predictRows(solver, file.circuit, file.rows);
  const scale = scaleOf(file);
  const parts = tolerances(file.circuit);
  const faults = caseFaults(file.circuit, scale);
  const hypotheses = faults.map((of) => hypothesis(file, of, parts));
  const found = diagnose(hypotheses, file.readings, expected, HOW_COMMON.other);
  const names = [...new Set(faults.map((f) => f.fault))];
  const where = file.rows.flatMap((row, n) => row.at.map((at) => ({ row: n, at })));
  const told = names
    .map((fault) => {
      const all = found.weighed.filter((w) => w.hypothesis.of.fault === fault);
      const best = all[0]!;
      const sigmas = best.posterior?.sigmas ?? [];
      const explained = (n: number) => Math.abs(sigmas[n] ?? Infinity) <= EXPLAINED_SIGMAS;
      return {
        fault: fault as FaultName,
        // What these readings cannot tell apart is named together.
        part: all
          .filter((w) => w.posterior === best.posterior)
          .map((w) => w.hypothesis.of.part)
          .filter((part, n, parts) => parts.indexOf(part) === n)
          .sort()
          .join(' or '),
        probability: all.reduce((sum, w) => sum + w.probability, 0),
        explains: where.filter((_, n) => explained(n)),
        fails: where.filter((_, n) => !explained(n)),
      };
    })
    .concat({ fault: 'other', part: '', probability: found.other, explains: where, fails: [] })
    .sort((a, b) => b.probability - a.probability);
  return { faults: told, next: nextReadings(file, found.weighed) };
}

function hypothesis(file: ReadingsFile, of: CaseFault, parts: ReturnType<typeof tolerances>): CaseHypothesis {
  const solver = new CaseSolver(file.referenceMainsV);
  const own = of.severity.length;
  // Of a dry capacitor the tolerance of the sound one says nothing more.
  const rest = parts.filter((p) => !(of.fault.startsWith('reservoir') && p.id.startsWith(`${of.part}.`)));
  const built = (values: readonly number[]): Network =>
    of.edit(
      withNumbers(
        file.circuit,
        rest.map((u) => u.id),
        values.slice(own),
      ),
      values.slice(0, own),
    );
  const over = (rows: readonly CaseRow[]) => (values: readonly number[]) => predictRows(solver, built(values), rows);
  return {
    fault: of.fault,
    part: of.part,
    prior: HOW_COMMON[of.fault] * of.share,
    unknowns: [...of.severity, ...rest],
    severities: own,
    predict: over(file.rows),
    of,
    over,
  };
}

/** Amperes a load is believed to draw at the rail's volts. */
function ampsOf(loads: readonly Load[], railV: number): number {
  return loads.reduce((sum, l) => {
    if (l.kind === 'resistance') return sum + railV / l.resistanceOhm;
    if (l.kind === 'power') return sum + l.powerW / railV;
    return sum + ('currentA' in l ? l.currentA : 0);
  }, 0);
}

/** What severities are measured by, of the readings' own states. */
function scaleOf(file: ReadingsFile): Scale {
  const solver = new CaseSolver(file.referenceMainsV);
  const rows = file.rows.map((row) => ({ ...row, at: ['rails.0.meanV'] }));
  const railV = Math.max(...predictRows(solver, file.circuit, rows));
  const loadA = Math.max(...file.rows.flatMap((row) => row.loads.map((l) => ampsOf(l, railV))));
  // Nobody hung anything on it: a hundredth of what its own ohms would let through.
  const ohm = numberAt(file.circuit, 'source.resistanceOhm')!;
  return { railV, loadA: loadA > 0 ? loadA : (0.01 * railV) / Math.max(ohm, 0.1) };
}

/** How sure an ordinary meter is of a place nobody read yet: so much of the value, and so much of the rail. */
const ORDINARY = { share: 0.005, ofRail: 0.0005 };
/** Hypotheses with less belief than this are not asked what they would read. */
const LEAST_BELIEF = 0.005;
const MOST_NEXT = 5;

/** The readings that would teach most, the best first. */
function nextReadings(
  file: ReadingsFile,
  weighed: readonly Weighed<CaseHypothesis>[],
): { at: string; loads: unknown; gain: number }[] {
  const rails = file.circuit.sections[0]!.rails.length;
  const states = distinctStates(file.rows);
  const at = [
    'source.rms',
    ...Array.from({ length: rails }, (_, r) => [`rails.${r}.meanV`, `rails.${r}.ripplePeakToPeakV`]).flat(),
  ];
  const rows: CaseRow[] = states.map((s) => ({ ...s, at }));
  const read = new Set(file.rows.flatMap((row) => row.at.map((place) => keyOf(row, place))));
  const outlooks = rows.map((row) => at.map((place) => ({ row, place, of: [] as Outlook[] })));
  const railV = Math.max(...file.readings.map((r) => Math.abs(r.value)));
  for (const w of weighed) {
    if (w.probability < LEAST_BELIEF || !w.posterior) continue;
    // What has no answer in a state nobody read is not asked about it.
    const told = orUnsolved(() => foretell(w.hypothesis.unknowns, w.posterior!, w.hypothesis.over(rows)));
    told?.forEach(({ value, sigma }, n) => {
      const meter = ORDINARY.share * Math.abs(value) + ORDINARY.ofRail * railV;
      outlooks[Math.floor(n / at.length)]![n % at.length]!.of.push({
        probability: w.probability,
        mean: value,
        sigma: Math.hypot(sigma, meter),
      });
    });
  }
  return outlooks
    .flat()
    .filter(({ row, place }) => !read.has(keyOf(row, place)))
    .map(({ row, place, of }) => ({
      at: place,
      loads: row.loads.map((l) => (l.length === 1 ? l[0] : l)),
      gain: expectedGain(of),
    }))
    .sort((a, b) => b.gain - a.gain)
    .slice(0, MOST_NEXT);
}

const keyOf = (state: CaseState, place: string) => `${JSON.stringify(state.loads)} ${place}`;

/** The states somebody read in, each once. */
function distinctStates(rows: readonly CaseRow[]): CaseState[] {
  const seen = new Map<string, CaseState>();
  for (const { mainsV, loads } of rows) {
    const key = JSON.stringify(loads);
    if (!seen.has(key)) seen.set(key, { mainsV, loads });
  }
  return [...seen.values()];
}

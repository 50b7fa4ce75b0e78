import { readFileSync } from 'node:fs';
import { CaseError, readCase } from '@/core/circuit/case-file';
import { SolveError } from '@/core/solve/solve-error';
import { resultFile, solveRun } from '@/core/solve/solve-run';

/** What became of one case: its result, or a sentence and the status it ends with. */
type Outcome = { result: object } | { fault: string; status: number };

const BAD = 2;
const UNSOLVED = 3;

/**
 * Usage: npm run solve -- CASE.json        ('-' or nothing reads standard input)
 * Writes the result as JSON. A file that is no case ends with its fault's path and sentence and status 2; a case that
 * does not converge with status 3. A list of cases is answered by a list in the same order: where one is at fault its
 * sentence stands in its place, and the others are answered all the same.
 */
function main(argv: string[]): number {
  const name = argv[0] ?? '-';
  let json: unknown;
  try {
    // Some editors begin a file with a mark of its byte order.
    json = JSON.parse(readFileSync(name === '-' ? 0 : name, 'utf8').replace(/^\uFEFF/, ''));
  } catch (error) {
    console.error(
      error instanceof SyntaxError ? `${name}: not JSON: ${error.message}` : `${name}: ${(error as Error).message}`,
    );
    return BAD;
  }
  if (!Array.isArray(json)) {
    const outcome = solved(json);
    if ('result' in outcome) console.log(JSON.stringify(outcome.result, null, 1));
    else console.error(outcome.fault);
    return 'result' in outcome ? 0 : outcome.status;
  }
  const outcomes = json.map(solved);
  outcomes.forEach((o, n) => 'fault' in o && console.error(`[${n}] ${o.fault}`));
  const answers = outcomes.map((o, n) => ('result' in o ? o.result : { ...named(json[n]), error: o.fault }));
  console.log(JSON.stringify(answers, null, 1));
  return outcomes.reduce((worst, o) => ('fault' in o ? Math.max(worst, o.status) : worst), 0);
}

/** Never throws: whatever is handed in comes to a result or a sentence. */
function solved(item: unknown): Outcome {
  try {
    const { network, run } = readCase(item);
    return { result: resultFile(solveRun(network, run)) };
  } catch (error) {
    if (error instanceof CaseError) return { fault: error.message, status: BAD };
    if (error instanceof SolveError) return { fault: `not solved: ${error.message}`, status: UNSOLVED };
    // Nested beyond what can be walked, or a fault of ours: either way a sentence.
    if (error instanceof RangeError) return { fault: `it cannot be read: ${error.message}`, status: BAD };
    return { fault: `not solved: the program failed (${String(error)})`, status: UNSOLVED };
  }
}

function named(item: unknown): { id?: string } {
  const id = (item as { id?: unknown } | null)?.id;
  return typeof id === 'string' ? { id } : {};
}

process.exitCode = main(process.argv.slice(2));

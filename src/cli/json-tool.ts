import { readFileSync } from 'node:fs';
import { CaseError } from '@/core/circuit/case-file';
import { SolveError } from '@/core/solve/solve-error';

/** What became of one item: its answer, or a sentence and the status it ends with. */
type Outcome = { answer: object } | { fault: string; status: number };

const BAD = 2;
const UNSOLVED = 3;

/**
 * A tool that reads one JSON item, or a list of them, from a file ('-' or nothing reads standard input) and writes what
 * each comes to. A bad item ends with its fault's path and sentence and status 2, one without a solution with status 3.
 * A list is answered by a list in the same order: where one is at fault its sentence stands in its place, and the others
 * are answered all the same.
 * @returns the status to end with
 */
export function jsonTool(argv: readonly string[], work: (item: unknown) => object): number {
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
    const outcome = worked(json, work);
    if ('answer' in outcome) console.log(JSON.stringify(outcome.answer, null, 1));
    else console.error(outcome.fault);
    return 'answer' in outcome ? 0 : outcome.status;
  }
  const outcomes = json.map((item) => worked(item, work));
  outcomes.forEach((o, n) => 'fault' in o && console.error(`[${n}] ${o.fault}`));
  const answers = outcomes.map((o, n) => ('answer' in o ? o.answer : { ...named(json[n]), error: o.fault }));
  console.log(JSON.stringify(answers, null, 1));
  return outcomes.reduce((worst, o) => ('fault' in o ? Math.max(worst, o.status) : worst), 0);
}

/** Never throws: whatever is handed in comes to an answer or a sentence. */
function worked(item: unknown, work: (item: unknown) => object): Outcome {
  try {
    return { answer: work(item) };
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

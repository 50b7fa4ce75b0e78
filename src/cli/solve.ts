import { readFileSync } from 'node:fs';
import { CaseError, readCase } from '@/core/circuit/case-file';
import { SolveError } from '@/core/solve/solve-error';
import { resultFile, solveRun } from '@/core/solve/solve-run';

/**
 * Usage: npm run solve -- CASE.json        ('-' or nothing reads standard input)
 * Writes the result as JSON. A file that is no case ends with its fault's path and sentence and status 2; a case that
 * does not converge with status 3. A list of cases is answered by a list of results in the same order.
 */
function main(argv: string[]): number {
  const name = argv[0] ?? '-';
  let json: unknown;
  try {
    json = JSON.parse(readFileSync(name === '-' ? 0 : name, 'utf8'));
  } catch (error) {
    console.error(
      error instanceof SyntaxError ? `${name}: not JSON: ${error.message}` : `${name}: ${(error as Error).message}`,
    );
    return 2;
  }
  const list = Array.isArray(json);
  const results: unknown[] = [];
  for (const [n, item] of (list ? (json as unknown[]) : [json]).entries()) {
    const where = list ? `[${n}] ` : '';
    try {
      const { network, run } = readCase(item);
      results.push(resultFile(solveRun(network, run)));
    } catch (error) {
      if (error instanceof CaseError) {
        console.error(`${where}${error.message}`);
        return 2;
      }
      if (error instanceof SolveError) {
        console.error(`${where}not solved: ${error.message}`);
        return 3;
      }
      throw error;
    }
  }
  console.log(JSON.stringify(list ? results : results[0], null, 1));
  return 0;
}

process.exitCode = main(process.argv.slice(2));

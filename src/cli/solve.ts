import { readCase } from '@/core/circuit/case-file';
import { resultFile, solveRun } from '@/core/solve/solve-run';
import { jsonTool } from './json-tool';

/** Usage: npm run solve -- CASE.json     ('-' or nothing reads standard input; several cases in one list) */
process.exitCode = jsonTool(process.argv.slice(2), (item) => {
  const { network, run } = readCase(item);
  return resultFile(solveRun(network, run));
});

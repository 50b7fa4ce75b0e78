import { fitFile, readFitFile } from '@/core/fit/fit-file';
import { jsonTool } from './json-tool';

/** Usage: npm run fit -- READINGS.json     ('-' or nothing reads standard input; several files' worth in one list) */
process.exitCode = jsonTool(process.argv.slice(2), (item) => fitFile(readFitFile(item)));

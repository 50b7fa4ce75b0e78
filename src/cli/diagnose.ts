import { diagnoseFile } from '@/core/fit/diagnose-file';
import { readReadingsFile } from '@/core/fit/fit-file';
import { jsonTool } from './json-tool';

/** Usage: npm run diagnose -- READINGS.json     ('-' or nothing reads standard input; several files' worth in one list) */
process.exitCode = jsonTool(process.argv.slice(2), (item) => diagnoseFile(readReadingsFile(item)));

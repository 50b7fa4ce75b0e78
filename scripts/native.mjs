// Compiles what lies in native for the machine and writes it, as text, where the solver loads it from.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { root } from './ensure.mjs';

const OPTIONS = { optimizeLevel: 3, shrinkLevel: 0, runtime: 'stub', importMemory: true, noAssert: true };
const read = (file) => readFileSync(path.join(root, file), 'utf8');

/** The names of sizes, offsets, arrays and numbers, and how the code takes them from the table it is handed. */
function prelude() {
  const lists = [...read('src/core/solve/native/fields.ts').matchAll(/export const ([A-Z]+) = \[([^\]]+)\]/g)];
  const names = Object.fromEntries(
    lists.map(([, list, text]) => [list, [...text.matchAll(/'(\w+)'/g)].map((m) => m[1])]),
  );
  const fields = [
    ...names.SIZES.map((n) => [n, 'i32']),
    ...names.OFFSETS.map((n) => [`o_${n}`, 'i32']),
    ...names.INTS.map((n) => [n, 'usize']),
    ...names.DOUBLES.map((n) => [n, 'usize']),
  ];
  return [
    'let table: usize = 0;',
    ...names.SIZES.map((n, k) => `const S_${n}: i32 = ${k};`),
    ...names.NUMBERS.map((n, k) => `const N_${n}: i32 = ${k};`),
    ...fields.map(([n, type]) => `let ${n}: ${type} = 0;`),
    'function bind(tableAt: usize): void {',
    '  table = tableAt;',
    ...fields.map(([n, type], k) => `  ${n} = <${type}>load<i32>(tableAt + ${4 * k});`),
    '}\n',
  ].join('\n');
}

/** The compiled bytes. @throws when it does not compile */
export async function compiled() {
  const asc = await import('assemblyscript/asc');
  const pieces = readdirSync(path.join(root, 'native')).filter((f) => /^\d+-.*\.ts$/.test(f));
  const source =
    prelude() +
    pieces
      .sort((a, b) => parseInt(a) - parseInt(b))
      .map((f) => read(`native/${f}`))
      .join('\n');
  const { error, binary, stderr } = await asc.compileString({ 'plain.ts': source }, OPTIONS);
  if (error) throw new Error(stderr.toString());
  return Buffer.from(binary);
}

/** What stands in the module they are kept in. */
export const moduleText = (bytes) =>
  `// Made by \`npm run native\` from what lies in native: not to be edited.\nexport const NATIVE_PLAIN =\n  '${bytes.toString('base64')}';\n`;

const MODULE = 'src/core/solve/native/compiled.ts';

// Usage: npm run native [-- --check]: with --check it only says whether what is kept is what the source compiles to.
if (process.argv[1] && path.resolve(process.argv[1]) === fileURLToPath(import.meta.url)) {
  const bytes = await compiled();
  if (!process.argv.includes('--check')) writeFileSync(path.join(root, MODULE), moduleText(bytes));
  // The bytes are what counts: tools put words of their own around them.
  else if (!read(MODULE).includes(`'${bytes.toString('base64')}'`)) {
    console.error(`${MODULE} is not what the pieces in native compile to: npm run native`);
    process.exit(1);
  }
}

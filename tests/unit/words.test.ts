import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

const root = path.join(__dirname, '../..');
const never = readFileSync(path.join(root, 'docs/words.md'), 'utf8')
  .split('\n')
  .filter((line) => line.startsWith('|'))
  .slice(2)
  .flatMap((line) => line.split('|')[3]!.split(','))
  .map((word) => word.trim());

/** The texts of a source file: strings and what stands between tags; comments and code are no words of ours. */
function texts(source: string): string[] {
  const bare = source.replace(/\/\*[\s\S]*?\*\//g, ' ').replace(/(^|\s)\/\/[^\n]*/g, ' ');
  const strings = [...bare.matchAll(/'((?:[^'\\\n]|\\.)*)'|"((?:[^"\\\n]|\\.)*)"|`((?:[^`\\]|\\.)*)`/g)];
  const between = [...bare.matchAll(/>([^<>{}]+)</g)];
  return [...strings.map((m) => m[1] ?? m[2] ?? m[3]!), ...between.map((m) => m[1]!)];
}

const files = ['src/ui', 'src/places', 'src/core', 'src/app'].flatMap((folder) =>
  readdirSync(path.join(root, folder), { recursive: true, encoding: 'utf8' })
    .filter((f) => /\.tsx?$/.test(f))
    .map((f) => path.join(root, folder, f)),
);

test('no text says a thing by another word than ours', () => {
  expect(never.length).toBeGreaterThan(20);
  const found = files.flatMap((file) =>
    texts(readFileSync(file, 'utf8')).flatMap((text) =>
      never
        .filter((word) => new RegExp(`(^|[^\\p{L}\\p{N}])${word}([^\\p{L}]|$)`, 'iu').test(text))
        .map((word) => `${path.relative(root, file)}: ‘${word}’ in ‘${text.trim().slice(0, 80)}’`),
    ),
  );
  expect(found).toEqual([]);
});

test('the test reads what is written: a wrong word in a text is found, in a comment it is not', () => {
  expect(texts("/* heat sink */ const a = 'a heat sink'; // radiator\n<p>the radiator</p>")).toEqual([
    'a heat sink',
    'the radiator',
  ]);
});

import fontkit from '@pdf-lib/fontkit';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

interface Face {
  has(code: number): boolean;
  ranges: [number, number][];
}

const rangesOf = (text: string): [number, number][] =>
  [...text.matchAll(/U\+([0-9A-F]+)(?:-([0-9A-F]+))?/g)].map(([, from, to]) => [
    parseInt(from!, 16),
    parseInt(to ?? from!, 16),
  ]);

function face(file: Buffer, ranges: string): Face {
  const font = fontkit.create(file) as unknown as { hasGlyphForCodePoint(code: number): boolean };
  return { has: (code) => font.hasGlyphForCodePoint(code), ranges: rangesOf(ranges) };
}

/** What a page is read in: the house's sans in pieces, and the signs it lacks. */
function faces(): Face[] {
  const shipped = readFileSync('src/app/fonts.ts', 'utf8');
  const sans = [...shipped.matchAll(/src: '([^']+sans-3[^']+)'[\s\S]*?'(U\+[^']+)'/g)];
  const signs = [
    ...readFileSync('src/app/signs.css', 'utf8').matchAll(/unicode-range: ([^;]+);[\s\S]*?base64,([^']+)'/g),
  ];
  return [
    ...sans.map(([, file, ranges]) => face(readFileSync(path.join('src/app', file!)), ranges!)),
    ...signs.map(([, ranges, text]) => face(Buffer.from(text!, 'base64'), ranges!)),
  ];
}

const filesOf = (folder: string) =>
  readdirSync(path.join('src', folder), { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.tsx?$/.test(file))
    .map((file) => path.join('src', folder, file));

/** Read and never written: what a person may type for a degree. */
const TYPED = new Set('℃');

test('no sign the program writes has to be looked for on the machine it is read on', () => {
  const all = faces();
  expect(all.length).toBeGreaterThanOrEqual(6);
  const shown = (code: number) =>
    all.some(({ has, ranges }) => ranges.some(([from, to]) => code >= from && code <= to) && has(code));
  expect([shown('A'.codePointAt(0)!), shown(0x4e00)]).toEqual([true, false]);
  const missing = ['app', 'places', 'ui', 'core']
    .flatMap(filesOf)
    .flatMap((file) =>
      [...new Set(readFileSync(file, 'utf8').match(/[^\x00-\x7e]/gu) ?? [])]
        .filter((sign) => !TYPED.has(sign) && !shown(sign.codePointAt(0)!))
        .map((sign) => `${sign} in ${file}`),
    );
  expect(missing).toEqual([]);
});

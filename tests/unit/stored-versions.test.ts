import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Design } from '@/core/design/design';
import { DESIGN_VERSION } from '@/core/design/migrate';
import { readDesign } from '@/core/design/schema';
import { judge } from '@/core/judge/judge';
import { studyDesign } from '@/core/study/study';

/** Documents as each version of the program wrote them. They never change: what is stored is what they are. */
const stored = (version: number) =>
  JSON.parse(readFileSync(path.join(__dirname, `../fixtures/designs/version-${version}.json`), 'utf8')) as Record<
    string,
    unknown
  >[];
const VERSIONS = Array.from({ length: DESIGN_VERSION - 1 }, (_, n) => n + 1);

describe.each(VERSIONS)('documents of version %d', (version) => {
  const documents = stored(version);

  test('are of that version, and open as this one', () => {
    for (const document of documents) {
      expect(document['version']).toBe(version);
      const read = readDesign(document);
      expect(read.ok ? read.design.version : `${read.fault.path}: ${read.fault.sentence}`).toBe(DESIGN_VERSION);
    }
  });

  test('keep what was written: volts, amperes, capacitance, names', () => {
    for (const document of documents as unknown as Design[]) {
      const read = readDesign(document);
      if (!read.ok) throw new Error(read.fault.sentence);
      const { design } = read;
      expect(design.name).toBe(document.name);
      expect(design.demand).toMatchObject({ outputV: document.demand.outputV, outputA: document.demand.outputA });
      expect(design.reservoir.capacitanceF).toBe(document.reservoir.capacitanceF);
      expect(design.transformer.ratedV).toBe(document.transformer.ratedV);
      expect(design.outputs.length).toBe((document.outputs as unknown[] | undefined)?.length ?? 0);
    }
  });

  test('are judged like any other, and read again as they came out', () => {
    const read = readDesign(documents[0]);
    if (!read.ok) throw new Error(read.fault.sentence);
    expect(judge(studyDesign(read.design)).length).toBeGreaterThan(8);
    expect(readDesign(JSON.parse(JSON.stringify(read.design)))).toEqual(read);
  });
});

test('every version there was has its documents, and one of a version to come is named', () => {
  for (const version of VERSIONS) expect(stored(version).length).toBeGreaterThan(2);
  const future = readDesign({ ...stored(1)[0], version: DESIGN_VERSION + 1 });
  expect(future.ok ? '' : future.fault.sentence).toContain(`version ${DESIGN_VERSION + 1}`);
});

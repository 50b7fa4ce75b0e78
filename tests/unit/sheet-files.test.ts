import jsQR from 'jsqr';
import sharp from 'sharp';
import { testPoints } from '@/core/bench/test-points';
import { mainsForReadings } from '@/core/bench/readings';
import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch, type Design } from '@/core/design/design';
import { readRepaired } from '@/core/design/repaired';
import { pictureOf } from '@/core/judge/picture';
import { asScript, designInside } from '@/core/sheet/design-inside';
import { LABEL_MM, labelDrawing, labelOf, labelSvg } from '@/core/sheet/label';
import { labelCode, readLabel, CODE_LETTERS_MAX } from '@/core/sheet/label-code';
import { fromBase45, toBase45 } from '@/core/sheet/base45';
import { sheetMarkdown } from '@/core/sheet/markdown';
import { drawingPdf } from '@/core/sheet/pdf';
import { billPdf, logPdf } from '@/core/sheet/records-pdf';
import { report } from '@/core/sheet/report';
import { sharedPage } from '@/core/sheet/share';
import { sheetPdf } from '@/core/sheet/sheet-pdf';
import { verdictsCsv } from '@/core/sheet/verdicts-csv';
import { billOf } from '@/core/study/bill';
import { mostOf } from '@/core/study/most';
import { readPdf } from '../support/read-pdf';

const DAY = '2026-11-29';
const [clock] = demoDesigns() as [Design];
const made = (design: Design) => {
  const { picture, study } = pictureOf(design);
  const page = report(picture, testPoints(design, mainsForReadings(design)), mostOf(design));
  return { picture, study, page };
};
const sheet = made(clock);
/** What a person could type or paste as a name. */
const HOSTILE = 'a</script><img src=x onerror=alert(1)> ``` "quoted" & | ماء 水 \u202eRTL';

describe('the sheet as a PDF', () => {
  test('says in text what it is, how it was meant to read and read, what was done to it, and what to try first', async () => {
    const pdf = await readPdf(await sheetPdf(sheet.picture, sheet.page, { paper: 'A4', day: DAY }));
    for (const said of [
      'Slave-clock line, stairwell',
      '24 V, 1.2 A',
      'licensed electrician',
      'Most it gives',
      ...sheet.page.margins.map((m) => m.title),
      '25.3 V to 27.3 V',
      '26.50 V at 231 V',
      'Bleeder of 220 kΩ across the reservoir.',
      'It still held 30 V ten minutes after the plug was out',
      'When it fails, try first',
      'One diode open or the wrong way round',
      'Feeds fourteen slave movements',
    ])
      expect(pdf.text).toContain(said);
    expect(pdf.pages).toEqual([[210, 297]]);
    expect(pdf.text).toContain('1 / 1');
  });

  test('has its fonts in it, is black but for its drawing, and is the same file on the same day', async () => {
    const make = (day: string) => sheetPdf(sheet.picture, sheet.page, { paper: 'LETTER', day });
    const [one, again, later] = [await make(DAY), await make(DAY), await make('2026-11-30')];
    expect(Buffer.compare(one, again)).toBe(0);
    expect(Buffer.compare(one, later)).not.toBe(0);
    const pdf = await readPdf(one);
    expect(pdf.pages).toEqual([[216, 279]]);
    expect(pdf.fonts.length).toBeGreaterThan(1);
    expect(pdf.fonts.every((f) => f.embedded)).toBe(true);
    expect(pdf.title).toBe(clock.name);
  });

  test('a name in any script is printed as far as there are letters for it, and it is said that some are missing', async () => {
    const odd = { ...clock, name: 'Ώρα τέταρτο, Час четверть, ساعت' };
    const { picture, page } = made(odd);
    const { text } = await readPdf(await sheetPdf(picture, page, { paper: 'A4', day: DAY }));
    expect(text).toContain('Ώρα τέταρτο, Час четверть, ■■■■');
    expect(text).toContain('a letter this print has no shape for');
    expect((await readPdf(await sheetPdf(sheet.picture, sheet.page, { paper: 'A4', day: DAY }))).text).not.toContain(
      '■',
    );
  });

  test('long notes go on, on pages that are counted', async () => {
    const { picture, page } = made({ ...clock, note: 'word '.repeat(790) });
    const pdf = await readPdf(await sheetPdf(picture, page, { paper: 'A4', day: DAY }));
    expect(pdf.pages.length).toBe(2);
    expect(pdf.text).toContain('2 / 2');
  });
});

test('the bench log and the parts list are PDFs too', async () => {
  const red = await sharp({ create: { width: 40, height: 30, channels: 3, background: 'red' } })
    .png()
    .toBuffer();
  const pictures = new Map([['a'.repeat(32), `data:image/png;base64,${red.toString('base64')}`]]);
  const photographed: Design = {
    ...clock,
    log: clock.log.map((e, n) => (n === 0 ? { ...e, photos: ['a'.repeat(32), 'b'.repeat(32)] } : e)),
  };
  const log = await readPdf(await logPdf(photographed, sheet.page, pictures, { paper: 'A4', day: DAY }));
  expect(log.text).toContain('2026-03-08');
  expect(log.text).toContain('1 more in the program');
  expect(log.images).toBe(1);
  const lines = billOf(sheet.study);
  const bill = await readPdf(await billPdf(clock, lines, { paper: 'A4', day: DAY }));
  for (const line of lines) expect(bill.text.replace(/\s+/g, ' ')).toContain(line.what.slice(0, 20).normalize('NFKC'));
});

describe('the design is found again', () => {
  const pictures = new Map([['a'.repeat(32), 'data:image/png;base64,AAAA']]);
  const files: [string, (m: ReturnType<typeof made>) => string][] = [
    ['in the Markdown', ({ picture, page }) => sheetMarkdown(picture, page, DAY)],
    ['in the shared page', ({ picture, page }) => sharedPage(picture, page, { circuit: '<svg/>', pictures, day: DAY })],
    ['in its JSON', ({ picture }) => JSON.stringify(picture.design)],
  ];
  test.each(files)('%s, whatever it is called', (_, file) => {
    for (const name of [clock.name, HOSTILE]) {
      const design: Design = { ...clock, name, note: `${HOSTILE}\n\`\`\`json ember-rail-design\n{}\n\`\`\`` };
      const inside = designInside(file(made(design)));
      expect(inside).toEqual({ kind: 'document', value: design });
    }
  });

  test('and nothing is made up where there is none', () => {
    expect(designInside('# A wiki page\n\nwith nothing')).toMatchObject({
      kind: 'fault',
      sentence: expect.stringContaining('no design'),
    });
    expect(designInside('{"format": ')).toMatchObject({
      kind: 'fault',
      sentence: expect.stringContaining('not a JSON file'),
    });
    expect(designInside(asScript(clock).replace('"demand"', 'demand'))).toMatchObject({
      kind: 'fault',
      sentence: expect.stringContaining('damaged'),
    });
  });
});

test('the shared page runs nothing, asks for nothing from outside, and shows what a person wrote as text', () => {
  const design: Design = {
    ...clock,
    name: HOSTILE,
    log: [{ day: DAY, what: HOSTILE, why: HOSTILE, photos: ['a'.repeat(32)] }],
  };
  const { picture, page } = made(design);
  const html = sharedPage(picture, page, {
    circuit: '<svg/>',
    pictures: new Map([['a'.repeat(32), 'data:image/png;base64,AAAA']]),
    day: DAY,
  });
  expect(html).not.toMatch(/<img src=x/);
  expect(html.match(/<script/g)).toEqual(['<script']);
  expect(html.match(/<\/script>/g)).toHaveLength(1);
  expect(html).toContain(`default-src 'none'`);
  expect([...html.matchAll(/\b(?:src|href)="([^"]*)"/g)].map(([, at]) => at)).toEqual(['data:image/png;base64,AAAA']);
  expect([...html.matchAll(/https?:\/\/[^"\s<]*/g)].map(([at]) => at)).toEqual(
    expect.not.arrayContaining([expect.not.stringContaining('w3.org')]),
  );
});

describe('the label', () => {
  const size = { wMm: LABEL_MM.width, hMm: LABEL_MM.height };
  const kept = { id: 'B0A9C1D2-1111-4222-8333-444455556666', revision: 7 };
  const label = labelOf(clock, { hazard: sheet.picture.hazard, day: DAY, kept });

  test('says name, in, out, fuse, day and revision, and carries the sign where volts can hurt', async () => {
    expect(label.name).toBe('Slave-clock line, stairwell');
    expect(label.lines).toEqual(['In 230 V 50 Hz', 'Out 24 V DC, 1.2 A', 'Fuse T 500 mA, 250 V', `${DAY}, revision 7`]);
    expect(label.hazard).toMatch(/Dangerous volts/);
    expect(labelOf(clock, { hazard: null, day: DAY, kept: null }).hazard).toBeNull();
    expect(labelDrawing({ ...label, hazard: null }, size).lines).toEqual([]);
    const pdf = await readPdf(await drawingPdf(labelDrawing(label, size), size, 'label', DAY));
    expect(pdf.pages).toEqual([[62, 29]]);
    for (const line of label.lines) expect(pdf.text).toContain(line);
  });

  test('its code, read off the drawing by an independent reader, is the design', async () => {
    const { data, info } = await sharp(Buffer.from(labelSvg(label, size)), { density: 300 })
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const read = jsQR(new Uint8ClampedArray(data), info.width, info.height);
    expect(read?.data).toBe(label.code.text);
    expect(read!.version).toBeLessThanOrEqual(20);
    const inside = designInside(read!.data);
    if (inside.kind !== 'document') throw new Error(inside.kind);
    const again = readRepaired(inside.value);
    if (!again.ok) throw new Error(again.fault.sentence);
    expect({ ...again.design, log: clock.log, bench: clock.bench, note: clock.note, build: clock.build }).toEqual(
      clock,
    );
  });

  test('nothing on it lies on anything else or over its edge, of any size and with any name', () => {
    for (const [wMm, hMm] of [
      [62, 29],
      [25, 25],
      [100, 50],
      [200, 30],
      [50, 25],
    ] as const)
      for (const name of [
        'X',
        clock.name,
        'W'.repeat(80),
        'A name of a great many words that goes on and on until nobody reads it any more',
      ])
        for (const design of demoDesigns()) {
          const drawn = labelDrawing(labelOf({ ...design, name }, { hazard: 'x', day: DAY, kept }), { wMm, hMm });
          const codeLeft = wMm - 1.5 - Math.min(hMm - 3, wMm / 2);
          let above = 0;
          for (const t of drawn.texts) {
            expect(t.yMm - 0.8 * t.letterMm).toBeGreaterThanOrEqual(above - 1e-9);
            above = t.yMm;
            // The bold face is 0.6 of its size wide at most on average, but for a row of Ws.
            expect(t.xMm + 0.5 * t.letterMm * t.text.length).toBeLessThan(codeLeft);
          }
          expect(above).toBeLessThanOrEqual(hMm - 1);
        }
  });

  test('holds all of a small design, the circuit of one with many records, and a name where even that is too much', () => {
    const [, , tide] = demoDesigns() as [Design, Design, Design];
    expect(readLabel(labelCode(tide, 'x').text)).toEqual({ kind: 'document', value: tide });
    expect(labelCode(clock, 'x').holds).toBe('no records');
    const noise = Array.from({ length: 40 }, (_, n) => ({
      ...clock.load.consumers[0]!,
      name: Math.sin(n).toString(36),
      peakA: Math.abs(Math.sin(n)),
    }));
    const full: Design = { ...clock, load: { ...clock.load, consumers: noise } };
    const code = labelCode(full, kept.id);
    expect(code).toEqual({ holds: 'name', text: `EMBER RAIL ID:${kept.id}` });
    expect(designInside(code.text)).toEqual({ kind: 'name', id: kept.id.toLowerCase() });
    for (const design of demoDesigns())
      expect(labelCode(design, 'x').text.length).toBeLessThanOrEqual(CODE_LETTERS_MAX);
  });

  test('a code that was misread is told, never taken', () => {
    const { text } = labelCode(clock, 'x');
    for (let at = 'EMBER RAIL 1:'.length; at < text.length; at++) {
      const wrong = text.slice(0, at) + (text[at] === 'A' ? 'B' : 'A') + text.slice(at + 1);
      expect([at, designInside(wrong).kind]).toEqual([at, 'fault']);
    }
    expect(designInside(text.slice(0, -3)).kind).toBe('fault');
    expect(designInside('EMBER RAIL 1:abc')).toMatchObject({
      kind: 'fault',
      sentence: expect.stringContaining('label'),
    });
  });
});

test('the tight letters are those of RFC 9285, and come back as they were', () => {
  expect(toBase45(new TextEncoder().encode('Hello!!'))).toBe('%69 VD92EX0');
  expect(toBase45(new TextEncoder().encode('base-45'))).toBe('UJCLQE7W581');
  expect(new TextDecoder().decode(fromBase45('QED8WEX0')!)).toBe('ietf!');
  for (const n of [0, 1, 2, 255])
    expect(fromBase45(toBase45(Uint8Array.from({ length: n }, (_, k) => (k * 37) % 256)))).toHaveLength(n);
  expect(fromBase45(':::')).toBeNull();
  expect(fromBase45('A')).toBeNull();
});

test('the verdicts as CSV: each with its figure in SI and its limit', () => {
  const rows = verdictsCsv(sheet.picture.verdicts).trim().split('\r\n');
  expect(rows).toHaveLength(1 + sheet.picture.verdicts.length);
  const first = sheet.picture.verdicts[0]!;
  expect(rows[1]).toContain(
    `"${first.title}",${first.state},${first.figure.value},${first.figure.unit},${first.relation},${first.limit}`,
  );
});

test('bytes to letters and back at their ends: 65,535 is three letters, one more is none', () => {
  expect(toBase45(Uint8Array.of(255, 255))).toBe('FGW');
  expect(fromBase45('FGW')).toEqual(Uint8Array.of(255, 255));
  // 16 + 16·45 + 32·45² = 65,536.
  expect(fromBase45('GGW')).toBeNull();
  expect(toBase45(Uint8Array.of(255))).toBe('U5');
  expect(fromBase45('U5')).toEqual(Uint8Array.of(255));
  expect(fromBase45('V5')).toBeNull();
  expect([fromBase45('A'), fromBase45('ab'), fromBase45('')]).toEqual([null, null, new Uint8Array()]);
});

test('a label with its warning takes no more height than one without', () => {
  const of = (hazard: string | null) => labelOf(clock, { hazard, day: DAY, kept: null });
  for (const hMm of [14, 18, 30]) {
    const low = (hazard: string | null) =>
      Math.max(...labelDrawing(of(hazard), { wMm: 62, hMm }).texts.map((t) => t.yMm));
    expect(low('60 V')).toBeLessThanOrEqual(hMm - 1.5 + 1e-9);
    expect(low(null)).toBeLessThanOrEqual(hMm - 1.5 + 1e-9);
  }
});

test('tables of the shared page: heads where there are any, the name of a row set apart, what fails marked', () => {
  const { picture, page } = made(clock);
  const html = sharedPage(picture, page, { circuit: '<svg/>', pictures: new Map(), day: DAY });
  const tables = [...html.matchAll(/<h2>([^<]*)<\/h2><div class="wide"><table>(.*?)<\/table>/g)].map((m) => ({
    title: m[1]!,
    rows: m[2]!.split('</tr>').filter((r) => r !== ''),
  }));
  const named = new Map(tables.map((t) => [t.title, t.rows]));
  const plate = named.get('Rating plate')!;
  expect(plate.every((r) => r.startsWith('<tr><th scope="row">'))).toBe(true);
  const [verdicts] = tables.filter((t) => t.rows[0]!.includes('>Verdict</th>'));
  expect(verdicts!.rows[0]!.match(/<th scope="col">/g)).toHaveLength(5);
  expect(verdicts!.rows.slice(1).every((r) => /^<tr><th scope="row">.+<\/th>(<td.*?>.*?<\/td>){4}$/.test(r))).toBe(
    true,
  );
  expect(html).not.toContain('<tr></tr>');
  // A failing verdict is marked, a passing one is not.
  const bad = made(applyPatch(clock, { transformer: { ratedV: 12 } }));
  const worse = sharedPage(bad.picture, bad.page, { circuit: '<svg/>', pictures: new Map(), day: DAY });
  expect(worse).toContain('<td class="fails">fails</td>');
  expect(html).not.toContain('class="fails"');
});

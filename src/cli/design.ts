import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { planBox } from '@/core/box/box-plan';
import { drillTemplates } from '@/core/box/template';
import { templateDxf } from '@/core/box/template-dxf';
import { templatePdf } from '@/core/box/template-pdf';
import { templateSvg } from '@/core/box/template-svg';
import { wireLengths } from '@/core/box/wire-length';
import { mainsForReadings } from '@/core/bench/readings';
import { saidVolts } from '@/core/bench/said-volts';
import { testPoints } from '@/core/bench/test-points';
import { resistorRatings } from '@/core/build/circuit/resistor-ratings';
import { circuitDrawing } from '@/core/build/circuit/circuit-drawing';
import { circuitSvg } from '@/core/build/circuit/circuit-svg';
import { wiring } from '@/core/build/wiring';
import { wiringCsv } from '@/core/build/wiring-csv';
import { mainsSide } from '@/core/mains-side/mains-side';
import { netlistCsv, netlistJson } from '@/core/netlist/netlist-files';
import { netlistOf } from '@/core/netlist/netlist-of';
import { SolveError } from '@/core/solve/solve-error';
import { billOf } from '@/core/study/bill';
import { billCsv } from '@/core/study/bill-csv';
import { studyDesign } from '@/core/study/study';
import { boardFiles, type NamedFile } from './board-files';
import { designIn } from './design-in';
import { sheetFiles } from './sheet-files';

const USAGE = `What a design is built from, as files.
Usage: npm run design -- FILE [--sheet] [--verdicts] [--netlist] [--circuit] [--wiring] [--bom] [--board] [--template]
                            [--share] [--label] [--out DIR]
  FILE       a design exported as JSON; also the Markdown of a sheet, a shared page, or the code of a label
  --sheet    sheet.pdf and sheet.md: what stays with the box
  --verdicts verdicts.csv: every verdict with its figure, limit and corner
  --share    share.html: one page that opens anywhere, with the design in it
  --label    label.pdf and label.svg: 62 by 29 mm, with the design in its code
  --netlist  netlist.csv and netlist.json: every part with its pins and nets
  --circuit  circuit.svg; with --zigzags resistors and chokes drawn that way
  --wiring   wiring.csv: every wire, what flows in it, how thick
  --bom      bom.csv: every part with what it has to bear
  --board    the board it is built on: of strips both sides at their own size, board.pdf and board.csv (holes, cuts, links);
             with tracks Gerber, drill and centroid files, the copper mirrored and not, board.pdf and board.csv (links)
  --template front, rear and floor of the box at their own size: SVG, DXF, and one PDF
  --out      where they are put; here where left out`;

function refuse(sentence: string): never {
  process.stderr.write(`${sentence}\n`);
  process.exit(2);
}

function asked() {
  const flag = { type: 'boolean', default: false } as const;
  try {
    return parseArgs({
      allowPositionals: true,
      options: {
        sheet: flag,
        verdicts: flag,
        share: flag,
        label: flag,
        netlist: flag,
        circuit: flag,
        zigzags: flag,
        wiring: flag,
        bom: flag,
        board: flag,
        template: flag,
        help: flag,
        out: { type: 'string', default: '.' },
      },
    });
  } catch (error) {
    return refuse(`${error instanceof Error ? error.message : String(error)}\n\n${USAGE}`);
  }
}

const { values, positionals } = asked();
const wanted =
  values.sheet ||
  values.verdicts ||
  values.share ||
  values.label ||
  values.netlist ||
  values.circuit ||
  values.wiring ||
  values.bom ||
  values.board ||
  values.template;
if (values.help || positionals.length !== 1 || !wanted) {
  (values.help ? process.stdout : process.stderr).write(`${USAGE}\n`);
  process.exit(values.help ? 0 : 2);
}
const design = designIn(positionals[0]!);
if (typeof design === 'string') refuse(design);

const netlist = netlistOf(design);
const files: NamedFile[] = [];
if (values.netlist) files.push(['netlist.csv', netlistCsv(netlist)], ['netlist.json', netlistJson(netlist)]);
try {
  if (values.circuit || values.wiring || values.bom) {
    const study = studyDesign(design);
    if (values.circuit) {
      const said = saidVolts(netlist, testPoints(design, mainsForReadings(design)));
      const drawing = circuitDrawing(netlist, said, resistorRatings(netlist, billOf(study)));
      files.push(['circuit.svg', circuitSvg(drawing, values.zigzags ? 'zigzags' : 'rectangles', design.name)]);
    }
    if (values.wiring) {
      const { placed, inside } = planBox(design);
      const rows = wiring(study, netlist, mainsSide(study), wireLengths(placed, inside));
      files.push(['wiring.csv', wiringCsv(rows)]);
    }
    if (values.bom) files.push(['bom.csv', billCsv(billOf(study))]);
  }
} catch (error) {
  if (!(error instanceof SolveError)) throw error;
  refuse(`${positionals[0]}: it cannot be solved: ${error.message}`);
}
async function write(): Promise<void> {
  if (typeof design === 'string') return;
  if (values.sheet || values.verdicts || values.share || values.label)
    files.push(...(await sheetFiles(design, values)));
  if (values.board) {
    const board = await boardFiles(design);
    if (typeof board === 'string') refuse(`${positionals[0]}: ${board}`);
    files.push(...board);
  }
  if (values.template) {
    const templates = drillTemplates(planBox(design), design.name);
    for (const t of templates) files.push([`${t.face}.svg`, templateSvg(t)], [`${t.face}.dxf`, templateDxf(t)]);
    files.push(['template.pdf', await templatePdf(templates, design.name)]);
  }
  mkdirSync(values.out, { recursive: true });
  for (const [name, content] of files) {
    writeFileSync(path.join(values.out, name), content);
    process.stdout.write(`${path.join(values.out, name)}\n`);
  }
}
write().catch((error: unknown) => {
  if (error instanceof SolveError) refuse(`${positionals[0]}: it cannot be solved: ${error.message}`);
  const reason = error instanceof Error ? error.message : String(error);
  const inTheWay = error instanceof Error && 'syscall' in error;
  refuse(inTheWay ? `${values.out} could not be written: ${reason}` : `${positionals[0]}: ${reason}`);
});

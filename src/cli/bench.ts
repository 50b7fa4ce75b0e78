import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { CaseError, readCase } from '@/core/circuit/case-file';
import type { Network } from '@/core/circuit/network';
import { MAINS_PRESETS } from '@/core/design/defaults';
import { applyPatch } from '@/core/design/design';
import { simulateFixes } from '@/core/judge/fixes';
import { pictureOf } from '@/core/judge/picture';
import { propose } from '@/core/size/propose';
import { resultFile, solveRun } from '@/core/solve/case-result';
import { compareResults } from '@/core/solve/compare';
import { solveSteady } from '@/core/solve/steady';

/**
 * Usage: npm run bench [-- --json]
 * Accuracy and speed of the solver on the reference cases it covers, and of what an edit costs behind the interface.
 */
const CASES = path.join(process.cwd(), 'tests/fixtures/cases');

interface CaseRow {
  id: string;
  worst: number;
  field: string;
  coldMs: number;
  warmMs: number | null;
}

function timed(work: () => unknown, rounds: number): number {
  for (let n = 0; n < Math.ceil(rounds / 3); n++) work();
  const times: number[] = [];
  for (let n = 0; n < rounds; n++) {
    const start = performance.now();
    work();
    times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[Math.floor(rounds / 2)]!;
}

/** The network with its load moved by 5 %, as one step of a drag would. */
function moved(network: Network): Network {
  const [capacitor] = network.rail.filter;
  return {
    ...network,
    rail: { ...network.rail, filter: capacitor ? [{ ...capacitor, capacitanceF: capacitor.capacitanceF * 1.05 }] : [] },
  };
}

function caseRows(): { rows: CaseRow[]; skipped: string[] } {
  const rows: CaseRow[] = [];
  const skipped: string[] = [];
  for (const file of readdirSync(CASES)
    .filter((f) => f.endsWith('.json'))
    .sort()) {
    let read;
    try {
      read = readCase(JSON.parse(readFileSync(path.join(CASES, file), 'utf8')));
    } catch (error) {
      if (!(error instanceof CaseError)) throw error;
      skipped.push(file.slice(0, 2));
      continue;
    }
    const { network, run } = read;
    const reference = JSON.parse(readFileSync(path.join(CASES, 'results', file), 'utf8')) as Record<string, unknown>;
    const worst = compareResults(reference, resultFile(solveRun(network, run)))[0]!;
    const warmV = run.kind === 'steady' ? solveSteady(network).initialV : undefined;
    const next = moved(network);
    rows.push({
      id: file.replace('.json', ''),
      worst: worst.relative,
      field: worst.path,
      coldMs: timed(() => solveRun(network, run), 400),
      warmMs: warmV === undefined ? null : timed(() => solveSteady(next, { warmV }), 400),
    });
  }
  return { rows, skipped };
}

function workRows(): { what: string; ms: number; budget: string }[] {
  const mains = MAINS_PRESETS[0]!.mains;
  const demand = { outputV: 15, outputA: 0.6, tolerancePct: 5, rippleVpp: 0.005, kind: 'current' as const };
  const good = propose('bench', demand, mains).design;
  const bad = applyPatch(good, {
    transformer: { ratedV: 12, ratedVA: 10 },
    reservoir: { capacitanceF: 470e-6, ratedV: 16 },
    heat: { sinkKPerW: 25 },
  });
  return [
    {
      what: 'one edit: all corners, start, verdicts',
      ms: timed(() => pictureOf(good), 60),
      budget: '100 to the repaint',
    },
    {
      what: 'all fixes of a design in trouble',
      ms: timed(() => {
        const { picture, study } = pictureOf(bad);
        return [...simulateFixes(study, picture.verdicts)];
      }, 5),
      budget: '–',
    },
    { what: 'proposal from a load', ms: timed(() => propose('bench', demand, mains), 3), budget: '1000 to the first' },
  ];
}

const cases = caseRows();
const work = workRows();
if (process.argv.includes('--json')) {
  console.log(JSON.stringify({ cases: cases.rows, notCovered: cases.skipped, work }));
} else {
  console.log('Reference cases             worst error  at                             cold ms  warm ms');
  for (const r of cases.rows) {
    console.log(
      `${r.id.padEnd(28)}${(100 * r.worst).toFixed(4).padStart(8)} %   ${r.field.padEnd(30)}${r.coldMs.toFixed(3).padStart(8)}${(r.warmMs === null ? '–' : r.warmMs.toFixed(3)).padStart(9)}`,
    );
  }
  console.log(`Not covered by this solver: ${cases.skipped.join(', ')}\n`);
  for (const w of work) console.log(`${w.what.padEnd(44)}${w.ms.toFixed(1).padStart(8)} ms   budget ${w.budget}`);
}

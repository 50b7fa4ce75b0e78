import { wordsOf } from '@/core/circuit/condition';
import type { Design } from '@/core/design/design';
import { dcSourceOf, hasDiodes, termsOf } from '@/core/design/source';
import { openVolts, sourceOhm, type DcSource } from '@/core/parts/dc-source';
import { FUSE_A, FUSE_SURE_TIMES } from '@/core/parts/mains-current';
import { TOUCH_DC_V } from '@/core/parts/touch-limits';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { nextInList } from '@/core/quantity/preferred';
import type { Figure } from '@/core/study/figure';
import { storedFigure } from '@/core/study/stored-energy';
import type { Study } from '@/core/study/study';
import type { CheckPoint, MainsReport } from './report';

/** Share of the running current a fuse in the lead is chosen above. */
const FUSE_TIMES = 1.5;
/** How far above what fits a fuse may be before the wire is what blows: a rule of thumb. */
const LEAD_FUSE_TIMES = 3;
/** A source that drives more than this into a short can burn its leads, A: a rule of thumb. */
const DANGEROUS_SHORT_A = 20;

/** What has to be right before a DC source is joined: a fuse in the lead, what a short does, which way round. */
export function dcSide(study: Study): MainsReport {
  const { design, idle } = study;
  const hardest = study.conditions
    .filter((c) => c.load === 'full' && c.output === undefined && !c.alone)
    .map((c) => study.at(c))
    .reduce((a, b) => (b.solution.windings[0]!.rmsA > a.solution.windings[0]!.rmsA ? b : a));
  const dc = dcSourceOf(design)!;
  const say = termsOf(design);
  const runningA = hardest.solution.windings[0]!.rmsA;
  const shortA = dc.kind === 'adapter' && dc.limitA !== null ? dc.limitA : shortOf(dc);
  const fuseA = nextInList(FUSE_TIMES * runningA, FUSE_A);
  const startV = idle.reservoir.maxV;
  const figures: Figure[] = [
    {
      id: 'lead-running',
      label: 'In the lead, running',
      value: runningA,
      unit: 'A',
      origin: 'simulated',
      condition: wordsOf(design, hardest.at),
      expression: 'root of the mean square of the current',
      inputs: [{ label: 'load', value: hardest.rail.loadMeanA, unit: 'A', origin: 'simulated' }],
      source: 'Periodic steady state.',
      assumes: [],
    },
    {
      id: 'lead-short',
      label: 'Into a short',
      value: shortA,
      unit: 'A',
      origin: 'formula',
      expression: dc.kind === 'adapter' && dc.limitA !== null ? 'where it cuts off' : 'open volts / its resistance',
      inputs: [
        { label: 'open volts', value: openVolts(dc, 'high'), unit: 'V', origin: 'chosen' },
        { label: 'resistance', value: sourceOhm(dc), unit: 'ohm', origin: 'chosen' },
      ],
      source: `The ${say.source} as given.`,
      assumes: ['Leads and contacts only make it less.'],
    },
    {
      id: 'lead-fuse',
      label: 'Fuse in the lead',
      value: fuseA,
      unit: 'A',
      origin: 'formula',
      expression: 'next standard value from 1.5 times the running current',
      inputs: [{ label: 'running', value: runningA, unit: 'A', origin: 'simulated' }],
      source: 'Rated values of IEC 60127.',
      assumes: ['Rated for direct current at these volts: an arc does not go out by itself.'],
    },
    storedFigure(design, idle),
  ];
  return {
    figures,
    primaryFuseA: null,
    secondaryFuseA: fuseA,
    bleederOhm: null,
    points: checkPoints(design, dc, { runningA, shortA, fuseA, startV }),
  };
}

const shortOf = (dc: DcSource) => openVolts(dc, 'high') / Math.max(sourceOhm(dc), 0.01);

function checkPoints(
  design: Design,
  dc: DcSource,
  f: { runningA: number; shortA: number; fuseA: number; startV: number },
): CheckPoint[] {
  const fitted = design.mainsSide.secondaryFuseA;
  const points: CheckPoint[] = [];
  const add = (id: string, state: CheckPoint['state'], text: string, why: string) =>
    points.push({ id, state, text, why });
  if (fitted === null) {
    add(
      'lead-fuse',
      f.shortA > DANGEROUS_SHORT_A ? 'wrong' : 'look',
      f.shortA > DANGEROUS_SHORT_A
        ? `No fuse in the lead: ${formatNominal(f.fuseA, 'A')} fits, close to the ${dc.kind}.`
        : `No fuse in the lead; ${formatQuantity(f.shortA, 'A')} is all it drives into a short.`,
      f.shortA > DANGEROUS_SHORT_A
        ? `It drives ${formatQuantity(f.shortA, 'A')} into a short: leads glow, plastic burns.`
        : 'Look that its leads and plug stand that for as long as it lasts.',
    );
  } else if (fitted < f.runningA) {
    add(
      'lead-fuse',
      'wrong',
      `The ${formatNominal(fitted, 'A')} fuse is below the ${formatQuantity(f.runningA, 'A')} that run.`,
      'It blows in use.',
    );
  } else if (fitted > LEAD_FUSE_TIMES * f.fuseA) {
    add(
      'lead-fuse',
      'wrong',
      `The ${formatNominal(fitted, 'A')} fuse is too big for a lead that carries ${formatQuantity(f.runningA, 'A')}: ${formatNominal(f.fuseA, 'A')} fits.`,
      'Wire chosen for the running current burns before it blows.',
    );
  } else if (f.shortA < FUSE_SURE_TIMES * fitted) {
    add(
      'lead-fuse',
      'look',
      `The ${formatNominal(fitted, 'A')} fuse does not surely blow: a short draws ${formatQuantity(f.shortA, 'A')} only.`,
      'Then the source itself is the limit.',
    );
  } else {
    add(
      'lead-fuse',
      'done',
      `Fuse ${formatNominal(fitted, 'A')} in the lead, close to the ${dc.kind}.`,
      'Between running and short-circuit current.',
    );
  }
  add(
    'polarity',
    hasDiodes(design) ? 'done' : 'look',
    hasDiodes(design)
      ? 'A diode in the lead: swapped leads do nothing.'
      : 'No diode in the lead: a plug that goes in one way round only, and its polarity measured once.',
    'It happens once to every lead that can be swapped.',
  );
  if (dc.kind === 'adapter') {
    add(
      'adapter-dc',
      'look',
      'Its plate says DC, and a meter on DC agrees, tip and sleeve.',
      'AC adapters look alike, and centre-negative plugs exist.',
    );
    add(
      'adapter-approved',
      'look',
      'A bought, approved adapter: mains stays inside it.',
      'Then nothing in your box sees the mains.',
    );
  } else {
    add(
      'battery-terminals',
      'look',
      'Terminals covered, the battery held in place, lead-acid with air around it.',
      'A spanner across a battery welds; charging ones give off hydrogen.',
    );
    add(
      'battery-switch',
      'look',
      'A switch that leaves nothing drawing: the regulator’s own current and the reservoir’s leakage empty it too.',
      'A battery left idle for weeks is found flat.',
    );
  }
  if (f.startV > TOUCH_DC_V)
    add(
      'touch',
      'look',
      `${formatQuantity(f.startV, 'V')} DC: nothing bare within reach, labelled.`,
      'Over 60 V direct current is not harmless.',
    );
  add(
    'label',
    'look',
    'Rating plate at the inlet: volts, current, which pole is the tip.',
    'In two years nobody remembers.',
  );
  return points;
}

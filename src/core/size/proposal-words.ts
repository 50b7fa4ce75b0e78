import { modelOf } from '@/core/circuit/feed';
import type { Ask } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { dcSourceOf, hasDiodes, termsOf } from '@/core/design/source';
import { sourceWords } from '@/core/design/words';
import { diodeClass } from '@/core/parts/diode';
import type { RegulatorModel } from '@/core/parts/regulators/model';
import { formatNominal as n, formatQuantity as q } from '@/core/quantity/format';
import { neededV } from '@/core/study/point';
import type { Study } from '@/core/study/study';
import type { Candidate, GivenUp, Proposal } from './proposal';
import { whyNoneFits } from './regulator-choices';

const valley = (study: Study) => study.low.rail.minV;

/** One line a station: what was chosen and why. @param failing sets that were given up on the way */
export function reasonsFor(winner: Candidate, failing: readonly GivenUp[]): Proposal['reasons'] {
  const { design, study } = winner;
  const { transformer, reservoir, regulator } = design;
  const model = modelOf(design);
  const needed = neededV(design);
  const lines: Proposal['reasons'] = [];
  const windingA = Math.max(...study.high.solution.windings.map((w) => w.rmsA));
  const lower = (dcSourceOf(design) ? [] : failing)
    .filter((c) => c.design.transformer.ratedV < transformer.ratedV && c.design.regulator.kind === regulator.kind)
    .sort((a, b) => b.design.transformer.ratedV - a.design.transformer.ratedV)[0];
  const lowerWhy = lower
    ? ` ${n(lower.design.transformer.ratedV, 'V')} was tried: ${lower.why.title.toLowerCase()} fails.`
    : '';
  const say = termsOf(design);
  const dc = dcSourceOf(design);
  const at = (end: string) => (dc ? `with the ${end}` : `at ${end}`);
  const clear = needed === null ? 0 : valley(study) - needed;
  lines.push({
    station: 'winding',
    text: `${dc ? sourceWords(design) : `${n(transformer.ratedV, 'V')}, ${n(transformer.ratedVA, 'VA')}`}: ${
      needed === null
        ? `puts ${q(study.nominal.outputMeanV, 'V')} on the load ${at(say.nominal)}`
        : `${at(say.low)} the valley ${clear < 0 ? `falls ${q(-clear, 'V', 2)} short of` : `stays ${q(clear, 'V', 2)} above`} the ${n(needed, 'V')} the regulator needs`
    }, and it gives ${q(windingA, 'A')} RMS${dc ? '' : `, ${windingA <= model.ratedA ? 'which fits' : 'above'} the ${q(model.ratedA, 'A')} rating`}.${lowerWhy}`,
  });
  lines.push({
    station: 'rectifier',
    text: !hasDiodes(design)
      ? 'None: swapped leads reach everything.'
      : `${dc ? 'In the lead, against swapped ones: a' : 'Bridge of'} ${diodeClass(design.rectifier.diode).name}: each carries ${q(Math.max(...study.high.solution.diodes.map((d) => d.meanA)), 'A')} on the mean and ${q(study.surge.peakA, 'A')} once, at switch-on.`,
  });
  lines.push({
    station: 'reservoir',
    text: `${n(reservoir.capacitanceF, 'F')}, ${n(reservoir.ratedV, 'V')}: idles at ${q(study.idle.rail.maxV, 'V')} ${at(say.high)}; ${q(study.low.rail.ripplePeakToPeakV, 'V')} p-p of ripple once it has aged; carries ${q(study.high.can?.rmsA ?? 0, 'A')} RMS.`,
  });
  const made = mainModel(design);
  if (made) {
    const stood = stands(winner, made);
    lines.push({
      station: 'regulator',
      text: `${made.name} (${n(made.ratedA, 'A')}): leaves ${q(study.low.outputRippleVpp, 'V')} p-p of ripple, burns ${q(study.high.regulatorW, 'W')} ${at(say.high)}${stood}.`,
    });
  } else {
    lines.push({
      station: 'regulator',
      text: `None: between ${say.low} loaded and ${say.high} idle the output stays within ${q(study.low.outputMinV, 'V')} to ${q(study.idle.outputMaxV, 'V')}.`,
    });
  }
  return lines;
}

/** What a regulator's junction comes to, and on what. */
function stands({ design, study, verdicts }: Candidate, { pass }: RegulatorModel): string {
  const { sinkKPerW } = design.heat;
  const fails = verdicts.some((v) => v.id === 'junction' && v.state === 'fails');
  const { junctionC, sinkC } = study.high.heat!;
  if (sinkKPerW === null || !pass.takesSink)
    return fails ? `, too much without a sink: ${q(junctionC, '°C')} inside` : ', which it stands without a sink';
  const sink = `${n(sinkKPerW, 'K/W')} sink`;
  return fails
    ? `; even a ${sink} leaves the junction at ${q(junctionC, '°C')}`
    : `; a ${sink} keeps the junction at ${q(junctionC, '°C')}, its own metal at ${q(sinkC, '°C')}`;
}

/** Why nothing passes, and what the closest fails on. */
export function shortfallOf(demand: Ask, winner: Candidate): string {
  const parts = whyNoneFits(demand);
  const worst = winner.verdicts.filter((v) => v.state === 'fails').map((v) => v.title.toLowerCase());
  return `No set of standard parts passes for this load${parts.length ? `: ${parts.join('; ')}` : ''}. This is the closest; it fails on ${worst.join(', ')}.`;
}

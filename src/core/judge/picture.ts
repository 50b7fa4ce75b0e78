import type { Design } from '@/core/design/design';
import { batteryLife } from '@/core/study/battery-life';
import { typicalCost } from '@/core/study/cost';
import { drawnPoint } from '@/core/study/drawn-point';
import { neededV, type OperatingPoint } from '@/core/study/point';
import { stationHeat } from '@/core/study/warmth';
import { outputSpan, studyDesign, type Study } from '@/core/study/study';
import { hazard } from './hazard';
import { countFails, judge } from './judge';
import type { Picture } from '@/core/picture/picture';

/** Solves and judges a design. @throws SolveError naming the condition that does not converge */
export function pictureOf(design: Design): { picture: Picture; study: Study } {
  const study = studyDesign(design);
  const verdicts = judge(study);
  const { low, nominal, high, idle, surge } = study;
  const lowest = study.held('lowest');
  return {
    study,
    picture: {
      design,
      points: {
        low: slim(drawnPoint(design, low)),
        nominal: slim(drawnPoint(design, nominal)),
        high: slim(drawnPoint(design, high)),
        idle: slim(idle),
      },
      stationHeat: {
        low: stationHeat(design, low),
        nominal: stationHeat(design, nominal),
        high: stationHeat(design, high),
      },
      surge: { peakA: surge.peakA, i2t: surge.i2t },
      lowest: lowest?.heat
        ? { outputV: lowest.outputMeanV, regulatorW: lowest.regulatorW, junctionC: lowest.heat.junctionC }
        : null,
      life: batteryLife(design),
      verdicts,
      fails: countFails(verdicts),
      tight: verdicts.filter((v) => v.state === 'tight').length,
      cautions: verdicts.filter((v) => v.state === 'caution').length,
      hazard: hazard(study),
      neededV: neededV(design),
      output: outputSpan(study),
      costEur: typicalCost(design),
    },
  };
}

/** A point as it crosses a border: its rails' samples stand in their waves already. */
function slim<P extends OperatingPoint>(point: P): P {
  const { railV: _railV, ...solution } = point.solution;
  void _railV;
  return { ...point, solution };
}

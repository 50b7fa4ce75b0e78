import { arrangementFacts, arrangementOf } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import type { Figure, FigureInput } from '@/core/study/figure';
import type { Unit } from '@/core/quantity/parse';
import { levelsOf } from '@/core/picture/levels';
import type { Band, Picture } from '@/core/picture/picture';
import { of, STEADY } from '../working';

export { of, STEADY };

/** What the figures of every station are made from, in one mains band. */
export function figureContext(picture: Picture, band: Band) {
  const { design } = picture;
  const point = picture.points[band];
  const { solution, winding } = point;
  const { words } = arrangementOf(design);
  const facts = arrangementFacts(design);
  const condition = wordsOf(design, band);
  const levels = levelsOf(point);
  const loadA = point.rail.loadMeanA;
  const fullWave = facts.fullWave[0]!;
  const simulated = (
    id: string,
    label: string,
    value: number,
    unit: Unit,
    expression: string,
    inputs: FigureInput[] = [],
    extra: Partial<Figure> = {},
  ): Figure => ({
    id,
    label,
    value,
    unit,
    origin: 'simulated',
    condition,
    expression,
    inputs,
    source: STEADY,
    assumes: [],
    ...extra,
  });
  const formula = (
    id: string,
    label: string,
    value: number,
    unit: Unit,
    expression: string,
    inputs: FigureInput[],
    source: string,
    assumes: string[] = [],
  ): Figure => ({ id, label, value, unit, origin: 'formula', condition, expression, inputs, source, assumes });

  return {
    picture,
    band,
    design,
    point,
    solution,
    winding,
    facts,
    words,
    condition,
    levels,
    loadA,
    fullWave,
    simulated,
    formula,
  };
}

export type FigureContext = ReturnType<typeof figureContext>;

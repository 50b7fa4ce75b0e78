import { arrangementOf } from '@/core/design/source';
import { wordsOf } from '@/core/circuit/condition';
import type { Figure, FigureInput } from '@/core/study/figure';
import type { Unit } from '@/core/quantity/parse';
import { levelsOf, type Band, type Picture } from '../picture';

export const STEADY = 'Periodic steady state of source, diodes, reservoir and load, solved directly.';

/** An input of a working. */
export const of = (label: string, value: number, unit: Unit, origin?: FigureInput['origin']): FigureInput => ({
  label,
  value,
  unit,
  ...(origin ? { origin } : {}),
});

/** What the figures of every station are made from, in one mains band. */
export function figureContext(picture: Picture, band: Band) {
  const { design } = picture;
  const point = picture.points[band];
  const { solution, winding } = point;
  const { facts } = arrangementOf(design);
  const condition = wordsOf(design, band);
  const levels = levelsOf(point);
  const loadA = point.rail.loadMeanA;
  const { fullWave } = facts;
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
    condition,
    levels,
    loadA,
    fullWave,
    simulated,
    formula,
  };
}

export type FigureContext = ReturnType<typeof figureContext>;

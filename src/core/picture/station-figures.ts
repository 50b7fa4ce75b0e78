import { dcSourceOf } from '@/core/design/source';
import type { Figure } from '@/core/study/figure';
import { figureContext, type FigureContext } from './figures/context';
import { dcResistanceFigures, dcSourceFigures } from './figures/dc-source';
import { filterAheadFigures, filterBehindFigures } from './figures/filter';
import { loadFigures } from './figures/load';
import { mainsFigures } from './figures/mains';
import { rectifierFigures } from './figures/rectifier';
import { regulatorFigures } from './figures/regulator';
import { reservoirFigures } from './figures/reservoir';
import { windingFigures } from './figures/winding';
import type { Band, Picture } from '@/core/picture/picture';
import type { StationId } from '@/core/judge/verdict';

const FIGURES: Readonly<Record<StationId, (context: FigureContext) => Figure[]>> = {
  mains: mainsFigures,
  winding: windingFigures,
  rectifier: rectifierFigures,
  before: filterAheadFigures,
  reservoir: reservoirFigures,
  after: filterBehindFigures,
  regulator: regulatorFigures,
  load: loadFigures,
};

/** The figures of one station in one mains band, each with its working. First the one builders ask for first. */
export function stationFigures(picture: Picture, station: StationId, band: Band): Figure[] {
  const context = figureContext(picture, band);
  const direct = dcSourceOf(picture.design) !== null;
  if (direct && station === 'mains') return dcSourceFigures(context);
  if (direct && station === 'winding') return dcResistanceFigures(context);
  return FIGURES[station](context);
}

import * as yup from 'yup';
import { BOARD_PLACES_MAX, TICK_MAX } from './how-many';
import { field, flag, group, list, oneOf, oneOfNumbers, wholeField } from './schema-pieces';

const known = () => yup.string().strict(true).required('${path} is missing').max(TICK_MAX, '${path} is too long');
const MANY = `${BOARD_PLACES_MAX} places`;

/** What the parts are soldered into, and where a hand put them. */
export const boardSchema = group({
  kind: oneOf(['strips', 'one side', 'two sides']),
  /** Thickness of etched copper, µm. */
  copperUm: oneOfNumbers([35, 70], '35 or 70'),
  /** Whether the primary fuse is soldered in, with the distances of the mains; never on strips. */
  mains: flag,
  /** On a board with tracks: first legs, from the left and from above, and quarter turns against the clock. */
  places: list(
    group({
      part: known(),
      xMm: field('board.placeMm'),
      yMm: field('board.placeMm'),
      turn: oneOfNumbers([0, 1, 2, 3], '0, 1, 2 or 3'),
    }),
    BOARD_PLACES_MAX,
    MANY,
  ),
  /** On strips: first legs by strip from above and hole from the left, both from 0, and how many strips down the last leg is. */
  strips: list(
    group({
      part: known(),
      strip: wholeField('board.hole'),
      hole: wholeField('board.hole'),
      down: wholeField('board.down'),
    }),
    BOARD_PLACES_MAX,
    MANY,
  ),
});

import * as yup from 'yup';
import { BOX_OWN_MAX, BOX_PLACES_MAX, NAME_MAX, TICK_MAX } from './how-many';
import { field, flag, group, list, oneOf, orNull } from './schema-pieces';

/** The walls of a box parts stand on. */
export const FACES = ['floor', 'front', 'rear'] as const;

const known = () => yup.string().strict(true).required('${path} is missing').max(TICK_MAX, '${path} is too long');
const size = { wMm: field('box.sizeMm'), dMm: field('box.sizeMm'), hMm: field('box.sizeMm') };

/** The box a supply is built into, and where what is in it. */
export const boxSchema = group({
  /** What the transformer is wound on. */
  core: oneOf(['laminated', 'ring']),
  /** Inside, width by depth by height; null for the smallest standard one that holds everything. */
  inside: orNull(group({ wMm: field('box.insideMm'), dMm: field('box.insideMm'), hMm: field('box.insideMm') })),
  /** Where parts were put by hand: middles, from the left and from the front, on a panel from the left and from below. */
  places: list(
    group({
      block: known(),
      face: oneOf(FACES),
      xMm: field('box.placeMm'),
      yMm: field('box.placeMm'),
      /** A quarter turn. */
      turned: flag,
    }),
    BOX_PLACES_MAX,
    `${BOX_PLACES_MAX} places`,
  ),
  /** Sizes read off the part in hand, in place of typical ones. */
  sizes: list(group({ block: known(), ...size }), BOX_PLACES_MAX, `${BOX_PLACES_MAX} sizes`),
  /** What else is to go in. */
  own: list(
    group({
      id: known(),
      name: yup.string().strict(true).required('${path} is missing').max(NAME_MAX, '${path} is too long'),
      face: oneOf(FACES),
      ...size,
      /** What is on it: mains, low volts, or a small-signal input. */
      carries: oneOf(['mains', 'low', 'input']),
    }),
    BOX_OWN_MAX,
    `${BOX_OWN_MAX} parts of your own`,
  ),
});

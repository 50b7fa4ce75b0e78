/** Longest name and note a design may carry, characters. */
export const NAME_MAX = 80;
export const NOTE_MAX = 4000;
/** Most parts a filter may have on each side of the reservoir. */
export const FILTER_STEPS_MAX = 8;
export const READINGS_MAX = 2000;
/** Most temperatures of a run. */
export const SOAK_MAX = 500;
/** Most pairs of what was set and what was read. */
export const CALIBRATION_MAX = 200;
/** Most rows of a measured load line. */
export const LOAD_ROWS_MAX = 500;

/** Most entries of a log, and letters in each of its two texts. */
export const LOG_MAX = 1000;
export const LOG_TEXT_MAX = 600;
/** Most pictures of one entry. */
export const PHOTOS_MAX = 12;
/** Most parts or wires that are ticked, lines of a kit, and of one of them that came. */
export const PLACED_MAX = 600;
/** Letters of what a part, a wire or a line of the bill is known by. */
export const TICK_MAX = 200;
export const KIT_MAX = 200;
/** Most parts of a box that were put somewhere by hand, and of the person's own. */
export const BOX_PLACES_MAX = 100;
export const BOX_OWN_MAX = 30;
/** Most parts and wires of a board that were put somewhere by hand. */
export const BOARD_PLACES_MAX = 100;
export const CAME_MAX = 9999;
/** Letters in the name of a revision. */
export const REVISION_NAME_MAX = 80;
/** Most regulators beside the main one. */
export const OUTPUTS_MAX = 4;
/** Most lines a load table may have. */
export const CONSUMERS_MAX = 200;

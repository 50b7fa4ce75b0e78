/** Designs drawn at once; a long shelf shows more on request, so that it opens as fast as a short one. */
export const SHELF_PAGE = 24;

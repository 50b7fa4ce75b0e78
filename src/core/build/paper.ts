/** Points of a page in a millimetre. */
export const PT_PER_MM = 72 / 25.4;
/** A page is no smaller than A4, mm: printed as it is, without fitting, it is true. */
export const A4_MM = { w: 210, h: 297 } as const;
/** A line of this length says whether a print is at its own size, mm. */
export const CHECK_LINE_MM = 100;

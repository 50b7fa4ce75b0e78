/** Touch limits in dry conditions, V. Above them a design is marked as hazardous voltage. */
export const TOUCH_DC_V = 60;
export const TOUCH_AC_V = 25;

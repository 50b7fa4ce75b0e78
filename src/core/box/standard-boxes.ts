import type { Inside } from './block';

/** Boxes as sold, inside, width by depth by height, mm, by their room; typical. */
export const STANDARD_BOXES: readonly Inside[] = (
  [
    [80, 60, 40],
    [100, 80, 45],
    [120, 80, 50],
    [120, 100, 60],
    [150, 100, 60],
    [150, 120, 70],
    [170, 130, 70],
    [180, 140, 80],
    [200, 150, 80],
    [200, 160, 100],
    [230, 170, 90],
    [230, 180, 110],
    [260, 180, 100],
    [260, 200, 120],
    [300, 200, 100],
    [300, 220, 130],
    [300, 250, 120],
    [350, 250, 130],
    [350, 280, 150],
    [430, 250, 90],
    [430, 300, 130],
    [430, 350, 175],
    [500, 400, 200],
    [600, 450, 250],
  ] as const
)
  .map(([wMm, dMm, hMm]) => ({ wMm, dMm, hMm }))
  .sort((a, b) => a.wMm * a.dMm * a.hMm - b.wMm * b.dMm * b.hMm);

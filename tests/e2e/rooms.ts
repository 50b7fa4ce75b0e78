/** Every room, and what stands in it once all that was to come has come. */
export const ROOMS: readonly [string, RegExp][] = [
  ['', /of 18 fail|pass/],
  ['/load', /What hangs on it/],
  ['/hum', /What this supply adds/],
  ['/scope', /B − A/],
  ['/heat', /Hottest|to get rid of|beyond/],
  ['/worst', /simulated, by margin gained per euro/],
  ['/pick', /simulated in this design/],
  ['/sets', /Keeps the load, the mains/],
  ['/transformer', /The model it makes/],
  ['/reservoir', /One can or several/],
  ['/bill', /To buy, without what comes/],
  ['/drawer', /on hand only/],
  ['/mains', /against plugging it in/],
  ['/checklist', /plugging it in|looked at/],
  ['/bench', /Power-up, stage by stage/],
  ['/sheet', /Rating plate/],
];

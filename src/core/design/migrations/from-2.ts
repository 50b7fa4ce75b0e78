import { filled, type Json } from './json';

/** Version 3 knows consumers, banks of cans, several ways of knowing a transformer, the mains side and the drawer. */
export function from2(d: Json): Json {
  return {
    ...d,
    version: 3,
    demand: filled(d, 'demand', { typicalA: null }),
    load: { consumers: [], togetherPct: 100, reservePct: 0 },
    transformer: filled(d, 'transformer', { core: 'laminated', source: { kind: 'plate' } }),
    rectifier: filled(d, 'rectifier', { rated: null }),
    reservoir: filled(d, 'reservoir', { cans: 1, pair: false }),
    mainsSide: {
      insulation: 'class I',
      box: 'metal',
      polarised: false,
      homeWound: false,
      primaryFuseA: null,
      secondaryFuseA: null,
      switchPoles: 2,
      softStart: false,
      thermalCutout: false,
      ticked: [],
    },
    picked: [],
  };
}

import * as yup from 'yup';
import type { DcSource } from '@/core/parts/dc-source';
import type { TransformerSource } from '@/core/parts/transformer-source';
import { byKind, field, flag, group, oneOf } from './schema-pieces';

/** Where the energy comes from: the mains, or a DC source in its place, as `parts/dc-source.ts` models it. */
export const sourceSchema = byKind({
  mains: {},
  battery: {
    freshV: field('source.freshV'),
    emptyV: field('source.emptyV').test(
      'falls',
      '${path} has to be below the fresh volts: a battery falls as it empties',
      function (v) {
        return v! < (this.parent as { freshV: number }).freshV;
      },
    ),
    resistanceOhm: field('source.resistanceOhm'),
    capacityAh: field('source.capacityAh'),
    reverseDiode: flag,
  },
  adapter: {
    ratedV: field('source.ratedV'),
    ratedA: field('source.ratedA'),
    idlePct: field('source.idlePct'),
    spreadPct: field('source.spreadPct'),
    rippleVpp: field('source.rippleVpp'),
    limitA: field('source.limitA'),
    reverseDiode: flag,
  },
} satisfies Record<'mains' | DcSource['kind'], yup.ObjectShape>);

export const mainsSchema = group({
  voltageRms: field('mains.voltageRms'),
  frequencyHz: field('mains.frequencyHz'),
  lowPct: field('mains.lowPct'),
  highPct: field('mains.highPct'),
  /** How much of the sine's peak is missing, per cent. */
  flatTopPct: field('mains.flatTopPct'),
});

/** A way of knowing a transformer, as `parts/transformer-source.ts` reads it. */
const transformerSource = byKind({
  plate: {},
  ohms: {
    primaryOhm: field('transformer.primaryOhm'),
    secondaryOhm: field('transformer.secondaryOhm'),
    openV: field('transformer.openV'),
    mainsV: field('mains.voltageRms'),
  },
  test: {
    openV: field('transformer.openV'),
    loadedV: field('transformer.loadedV').test(
      'drops',
      '${path} has to be below the open volts: a load pulls a winding down',
      function (v) {
        return v! < (this.parent as { openV: number }).openV;
      },
    ),
    loadA: field('transformer.loadA'),
    mainsV: field('mains.voltageRms'),
  },
  fitted: {
    openV: field('transformer.openV'),
    mainsV: field('mains.voltageRms'),
    ownOhm: field('transformer.fittedOhm'),
    sharedOhm: field('transformer.fittedOhm'),
    voltsPct: field('transformer.fittedPct'),
    ohmPct: field('transformer.fittedPct'),
  },
  wound: {
    plan: group({
      areaMm2: field('winding.areaMm2'),
      windowMm2: field('winding.windowMm2'),
      meanTurnMm: field('winding.meanTurnMm'),
      fluxT: field('winding.fluxT'),
      turnsPerVolt: field('winding.turnsPerVolt'),
      primaryTurns: field('winding.turns'),
      primaryWireMm: field('winding.wireMm'),
      secondaryTurns: field('winding.turns'),
      secondaryWireMm: field('winding.wireMm'),
    }),
  },
} satisfies Record<TransformerSource['kind'], yup.ObjectShape>);

export const transformerSchema = group({
  /** Winding, or each half of a centre tap, at rated load, V RMS. */
  ratedV: field('transformer.ratedV'),
  ratedVA: field('transformer.ratedVA'),
  regulationPct: field('transformer.regulationPct'),
  hotC: field('transformer.hotC'),
  /** Leakage inductance of each winding, H. */
  leakageH: field('transformer.leakageH'),
  core: oneOf(['laminated', 'toroid']),
  /** Alike windings its plate speaks of, where not all of them are used; null for as many as the rectifier works on. */
  windingsOnPlate: yup
    .number()
    .strict(true)
    .nullable()
    .defined('${path} is missing')
    .oneOf([null, 1, 2], '${path} has to be 1 or 2'),
  /** Whether it is a bought AC adapter: the mains stays inside it. */
  sealed: flag,
  /** What its model is made from; volts and size above stay its rating. */
  source: transformerSource,
});

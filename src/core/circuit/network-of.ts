import { openVolts, sourceOhm, type DcSource } from '@/core/parts/dc-source';
import { diodeOf, lawAt, spreadLaw } from '@/core/parts/diode';
import { copperRatio } from '@/core/parts/transformer';
import type { Design, Heater } from '@/core/design/design';
import { outputsOf } from '@/core/design/outputs';
import { heatersOf } from '@/core/design/heaters';
import { arrangementKind, arrangementOf, dcSourceOf, hasDiodes } from '@/core/design/source';
import { mapped } from '@/core/quantity/lists';
import { SHORTED_OHM } from './port';
import type { AcLoad, Load, Network, Winding } from './network';
import type { Condition } from './condition';
import { mainsVolts, modelOf } from './feed';
import { filterOf } from './filter-of';
import { ampsUnder, loadsOf, type LoadAdjust } from './loads-of';

/** What may be set aside from a condition's own values, for a day's mains or a part's spread. */
export interface Adjust extends LoadAdjust {
  mainsV?: number;
  capacitanceFactor?: number;
  resistanceFactor?: number;
  openCircuitFactor?: number;
  diodeSaturationFactor?: number;
  /** What warm copper and the diodes are taken at, °C; as chosen and as their data has them where left out. */
  copperC?: number;
  diodeC?: number;
}

/** A design under one condition becomes a network. */
export function networkOf(design: Design, condition: Condition, adjust: Adjust = {}): Network {
  const diode = lawAt(diodeOf(design.rectifier), adjust.diodeC);
  const { rails } = arrangementOf(design);
  const filter = filterOf(design, condition, adjust.capacitanceFactor ?? 1);
  // A start surge has died away in everything but a start, and would only cost time there.
  const running = (loads: Load[]) =>
    condition.id === 'surge' ? loads : mapped(loads, ({ surge: _gone, ...load }) => (void _gone, load as Load));
  const dc = dcSourceOf(design);
  const feed = dc ? dcFeed(design, dc, condition, adjust) : mainsFeed(design, condition, adjust);
  return {
    frequencyHz: design.mains.frequencyHz,
    mains: feed.mains,
    sections: [
      {
        winding: feed.winding,
        rectifier: {
          kind: arrangementKind(design),
          diode: spreadLaw(diode, adjust.diodeSaturationFactor ?? 1),
          ...(hasDiodes(design) ? {} : { faults: [{ diode: 0, state: 'short' as const }] }),
        },
        rails: Array.from({ length: rails }, (_, rail) => ({
          filter,
          load: running(loadsOf(design, condition, rail, adjust)),
        })),
      },
    ],
    ...(feed.acLoads && feed.acLoads.length > 0 ? { acLoads: feed.acLoads } : {}),
  };
}

interface FeedParts {
  mains: Network['mains'];
  winding: Winding;
  acLoads?: AcLoad[];
}

/** Mains and transformer as the rectifier sees them. */
function mainsFeed(design: Design, condition: Condition, adjust: Adjust): FeedParts {
  const model = modelOf(design);
  const level = (adjust.mainsV ?? condition.mainsV ?? mainsVolts(design, condition.mains)) / design.mains.voltageRms;
  // Warm copper as the model has it, or at a temperature of its own; a cold start is cold whatever comes later.
  const ratio = condition.copper === 'cold' ? 1 : adjust.copperC === undefined ? null : copperRatio(adjust.copperC);
  const r = adjust.resistanceFactor ?? 1;
  return {
    mains: {
      sharedResistanceOhm: (ratio === null ? model.sharedHotOhm : model.sharedColdOhm * ratio) * r,
      flatTop: design.mains.flatTopPct / 100,
    },
    winding: {
      voltageRms: model.openCircuitV * level * (adjust.openCircuitFactor ?? 1),
      resistanceOhm: (ratio === null ? model.ownHotOhm : model.ownColdOhm * ratio) * r,
      inductanceH: design.transformer.leakageH,
    },
    acLoads: mapped(heatersOf(design), (h) => heaterLoad(h, model.regulation, level)),
  };
}

/** Ripple of an adapter grows with what it gives; no source is stiffer than its leads. */
function dcFeed(design: Design, dc: DcSource, condition: Condition, adjust: Adjust): FeedParts {
  const openV = (adjust.mainsV ?? condition.mainsV ?? openVolts(dc, condition.mains)) * (adjust.openCircuitFactor ?? 1);
  const drawnA = outputsOf(design).reduce((sum, o) => sum + ampsUnder(design, o, condition), 0);
  const ripple = dc.kind === 'adapter' ? (dc.rippleVpp * drawnA) / dc.ratedA / openV : 0;
  return {
    mains: { sharedResistanceOhm: 0, flatTop: 0, ripple: Math.min(ripple, 1) },
    winding: {
      voltageRms: openV / Math.SQRT2,
      // Where no diode stands, the wire in its place is part of the leads.
      resistanceOhm:
        Math.max(sourceOhm(dc) * (adjust.resistanceFactor ?? 1), LEADS_OHM) - (dc.reverseDiode ? 0 : SHORTED_OHM),
      inductanceH: 0,
    },
  };
}

/** Half a metre of two-core lead and its plug, ohm. */
const LEADS_OHM = 0.01;

/**
 * A heater winding behind its own copper: half of the transformer's regulation is taken as its own, the primary's half
 * is shared with the other windings.
 */
function heaterLoad(heater: Heater, regulation: number, level: number): AcLoad {
  return {
    winding: {
      voltageRms: heater.ratedV * (1 + regulation) * level,
      resistanceOhm: (0.5 * heater.ratedV * regulation) / heater.currentA,
      inductanceH: 0,
    },
    resistanceOhm: heater.ratedV / heater.currentA,
  };
}

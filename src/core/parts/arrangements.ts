import type { Arrangement } from './arrangement';
import { bridge } from './arrangements/bridge';
import { bridgeOfPairs } from './arrangements/bridge-pairs';
import { cascadeDoubler } from './arrangements/cascade-doubler';
import { centreTap } from './arrangements/centre-tap';
import { direct } from './arrangements/direct';
import { doubler } from './arrangements/doubler';
import { halfWave } from './arrangements/half-wave';
import { splitBridge } from './arrangements/split-bridge';
import { splitHalfWave } from './arrangements/split-half-wave';
import { tripler } from './arrangements/tripler';
import { twoBridges } from './arrangements/two-bridges';

/** Every rectifier there is, by its name in files, in the order they are offered. A new one is a file and its line here. */
const RECTIFIERS = {
  'half-wave': halfWave,
  'centre-tap': centreTap,
  bridge,
  'split-bridge': splitBridge,
  'split-half-wave': splitHalfWave,
  'two-bridges': twoBridges,
  doubler,
  'cascade-doubler': cascadeDoubler,
  tripler,
  'bridge-of-pairs': bridgeOfPairs,
} as const satisfies Record<string, Arrangement>;

export type RectifierKind = keyof typeof RECTIFIERS;
export const RECTIFIER_KINDS = Object.keys(RECTIFIERS) as RectifierKind[];
/** How any source meets its rails: a rectifier, or nothing but a lead. */
export type ArrangementKind = RectifierKind | 'direct';

export const ARRANGEMENTS: Readonly<Record<ArrangementKind, Arrangement>> = { ...RECTIFIERS, direct };

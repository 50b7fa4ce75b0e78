import type { Arrangement } from './arrangement';
import { bridge } from './arrangements/bridge';
import { centreTap } from './arrangements/centre-tap';
import { direct } from './arrangements/direct';
import { doubler } from './arrangements/doubler';
import { halfWave } from './arrangements/half-wave';
import { splitBridge } from './arrangements/split-bridge';
import { splitHalfWave } from './arrangements/split-half-wave';
import { twoBridges } from './arrangements/two-bridges';
import type { ArrangementKind } from '@/core/parts/arrangement';

export const ARRANGEMENTS: Readonly<Record<ArrangementKind, Arrangement>> = {
  'half-wave': halfWave,
  'centre-tap': centreTap,
  bridge,
  'split-bridge': splitBridge,
  'split-half-wave': splitHalfWave,
  'two-bridges': twoBridges,
  doubler,
  direct,
};

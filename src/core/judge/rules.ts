import { diodeAverage } from './rules/diode-average';
import { diodeReverse } from './rules/diode-reverse';
import { diodeSurge } from './rules/diode-surge';
import { headroom } from './rules/headroom';
import { junction } from './rules/junction';
import { outputRipple } from './rules/output-ripple';
import { outputWindow } from './rules/output-window';
import { regulatorCurrent } from './rules/regulator-current';
import { regulatorInput } from './rules/regulator-input';
import { reservoirVoltage } from './rules/reservoir-voltage';
import { rippleCurrent } from './rules/ripple-current';
import { sinkTouch } from './rules/sink-touch';
import { windingCurrent } from './rules/winding-current';
import type { Rule } from './verdict';

/** Every rule a design is judged by. Causes stand before their effects: the order settles ties. */
export const RULES: readonly Rule[] = [
  headroom,
  outputWindow,
  outputRipple,
  reservoirVoltage,
  rippleCurrent,
  regulatorInput,
  regulatorCurrent,
  junction,
  windingCurrent,
  diodeAverage,
  diodeReverse,
  diodeSurge,
  sinkTouch,
];

import { bridgeHeat } from './rules/bridge-heat';
import { chokeCritical, chokeIdle } from './rules/choke-critical';
import { chokeRating } from './rules/choke-rating';
import { diodeAverage } from './rules/diode-average';
import { diodeReverse } from './rules/diode-reverse';
import { diodeSurge } from './rules/diode-surge';
import { filterResonance } from './rules/filter-resonance';
import { filterVoltage } from './rules/filter-voltage';
import { headroom } from './rules/headroom';
import { holdUp } from './rules/hold-up';
import { insideAirRule } from './rules/inside-air';
import { junction } from './rules/junction';
import { lostLoad } from './rules/lost-load';
import { minimumLoad } from './rules/minimum-load';
import { outputRipple } from './rules/output-ripple';
import { outputWindow } from './rules/output-window';
import { preRegulatorHeat, preRegulatorHolds } from './rules/pre-regulator';
import { regulatorCurrent } from './rules/regulator-current';
import { regulatorInput } from './rules/regulator-input';
import { reservoirVoltage } from './rules/reservoir-voltage';
import { reversePolarity } from './rules/reverse-polarity';
import { rippleCurrent } from './rules/ripple-current';
import { safeArea } from './rules/safe-area';
import { shortCircuit } from './rules/short-circuit';
import { sinkTouch } from './rules/sink-touch';
import { sourceCurrent } from './rules/source-current';
import { surgeHeating } from './rules/surge-heating';
import { windingCurrent } from './rules/winding-current';
import { windingDc } from './rules/winding-dc';
import { windingHeat } from './rules/winding-heat';
import type { Rule } from './verdict';

/** Every rule a design is judged by. Causes stand before their effects: the order settles ties. */
export const RULES: readonly Rule[] = [
  chokeCritical,
  headroom,
  outputWindow,
  outputRipple,
  lostLoad,
  reservoirVoltage,
  filterVoltage,
  filterResonance,
  rippleCurrent,
  regulatorInput,
  regulatorCurrent,
  junction,
  preRegulatorHeat,
  safeArea,
  insideAirRule,
  sourceCurrent,
  windingCurrent,
  windingDc,
  chokeRating,
  diodeAverage,
  diodeReverse,
  diodeSurge,
  surgeHeating,
  sinkTouch,
  bridgeHeat,
  preRegulatorHolds,
  shortCircuit,
  minimumLoad,
  windingHeat,
  holdUp,
  reversePolarity,
  chokeIdle,
];

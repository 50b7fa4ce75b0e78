import type { Rule } from './rule';
import { anodePeak } from './rules/anode-peak';
import { chokeCritical, chokeIdle } from './rules/choke-critical';
import { chokeRating } from './rules/choke-rating';
import { diodeAverage } from './rules/diode-average';
import { diodeReverse } from './rules/diode-reverse';
import { diodeSurge, surgeHeating } from './rules/diode-surge';
import { filterResonance } from './rules/filter-resonance';
import { filterVoltage } from './rules/filter-voltage';
import { headroom } from './rules/headroom';
import { holdUp } from './rules/hold-up';
import { insideAirRule } from './rules/inside-air';
import { junction } from './rules/junction';
import { lostLoad } from './rules/lost-load';
import { minimumLoad } from './rules/minimum-load';
import { outputRange } from './rules/output-range';
import { outputRipple } from './rules/output-ripple';
import { outputWindow } from './rules/output-window';
import { preRegulatorArea, preRegulatorHeat, preRegulatorHolds } from './rules/pre-regulator';
import { rectifierHeat } from './rules/rectifier-heat';
import { regulatorCurrent } from './rules/regulator-current';
import { regulatorInput } from './rules/regulator-input';
import { reservoirVoltage } from './rules/reservoir-voltage';
import { reversePolarity } from './rules/reverse-polarity';
import { rippleCurrent } from './rules/ripple-current';
import { passSharing, safeArea } from './rules/safe-area';
import { shortCircuit } from './rules/short-circuit';
import { sinkTouch } from './rules/sink-touch';
import { smallHeat } from './rules/small-heat';
import { sourceCurrent } from './rules/source-current';
import { windingCurrent } from './rules/winding-current';
import { windingDc } from './rules/winding-dc';
import { windingHeat } from './rules/winding-heat';

/**
 * Every rule a design is judged by, by its name. Causes stand before their effects: the order settles ties. A new rule is a
 * file and its line here; nothing else names rules.
 */
export const RULES = {
  'choke-critical': chokeCritical,
  headroom,
  'output-range': outputRange,
  'output-window': outputWindow,
  'output-ripple': outputRipple,
  'lost-load': lostLoad,
  'reservoir-voltage': reservoirVoltage,
  'filter-voltage': filterVoltage,
  'filter-resonance': filterResonance,
  'ripple-current': rippleCurrent,
  'regulator-input': regulatorInput,
  'regulator-current': regulatorCurrent,
  junction,
  'pre-regulator-heat': preRegulatorHeat,
  'pass-sharing': passSharing,
  'safe-area': safeArea,
  'pre-regulator-area': preRegulatorArea,
  'small-heat': smallHeat,
  'inside-air': insideAirRule,
  'source-current': sourceCurrent,
  'winding-current': windingCurrent,
  'winding-heat': windingHeat,
  'winding-dc': windingDc,
  'choke-rating': chokeRating,
  'diode-average': diodeAverage,
  'anode-peak': anodePeak,
  'rectifier-heat': rectifierHeat,
  'diode-reverse': diodeReverse,
  'diode-surge': diodeSurge,
  'surge-heating': surgeHeating,
  'reverse-polarity': reversePolarity,
  'short-circuit': shortCircuit,
  'minimum-load': minimumLoad,
  'sink-touch': sinkTouch,
  'pre-regulator': preRegulatorHolds,
  'hold-up': holdUp,
  'choke-idle': chokeIdle,
} as const satisfies Record<string, Rule>;

export type RuleId = keyof typeof RULES;
export const RULE_IDS = Object.keys(RULES) as RuleId[];

export function ruleOf(id: RuleId): Rule {
  return RULES[id];
}

/** Rules that decide about a kind of part. */
export function rulesDeciding(role: Rule['decides'][number]): RuleId[] {
  return RULE_IDS.filter((id) => ruleOf(id).decides.includes(role));
}

/** Rules another sink may move, and those it may not. */
export function rulesBySink(): { moved: RuleId[]; still: RuleId[] } {
  const moved = RULE_IDS.filter((id) => ruleOf(id).followsSink);
  return { moved, still: RULE_IDS.filter((id) => !moved.includes(id)) };
}

/** Groups of rules a search may ask before the others, the earliest first: each group shares its circumstances. */
export function earlyGroups(): RuleId[][] {
  const numbers = [...new Set(RULE_IDS.flatMap((id) => ruleOf(id).early ?? []))].sort((a, b) => a - b);
  return numbers.map((n) => RULE_IDS.filter((id) => ruleOf(id).early === n));
}

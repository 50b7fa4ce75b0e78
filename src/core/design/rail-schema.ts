import { RECTIFIER_KINDS } from '@/core/parts/arrangements';
import { DIODE_CLASSES } from '@/core/parts/diode';
import { FILTER_STEPS_MAX } from './how-many';
import { farEnoughApart } from './limits';
import { byKind, field, flag, group, list, oneOf, oneOfNumbers, orNull, wholeField } from './schema-pieces';

/** Two points of a forward curve: more current takes more volts. */
const diodeSheet = group({
  points: orNull(
    group({
      lowA: field('rectifier.lowA'),
      lowV: field('rectifier.lowV'),
      highA: field('rectifier.highA').test(
        'more',
        '${path} has to be at least three times the lower current',
        function (v) {
          return farEnoughApart((this.parent as { lowA: number }).lowA, v!);
        },
      ),
      highV: field('rectifier.highV').test(
        'more',
        '${path} has to lie above the volts at the lower current',
        function (v) {
          return v! > (this.parent as { lowV: number }).lowV;
        },
      ),
    }),
  ),
  jcKPerW: field('rectifier.jcKPerW'),
  jaKPerW: field('rectifier.jaKPerW'),
});

export const rectifierSchema = group({
  kind: oneOf(RECTIFIER_KINDS),
  /** Whose law it follows. */
  diode: oneOf(DIODE_CLASSES.map((d) => d.id)),
  /** Ratings of the very diode or bridge at hand; null for those of its class. */
  rated: orNull(
    group({
      averageA: field('rectifier.averageA'),
      reverseV: field('rectifier.reverseV'),
      surgeA: field('rectifier.surgeA'),
    }),
  ),
  /** What else its data sheet says; null for what its class has. */
  sheet: orNull(diodeSheet),
});

/** Values of one can; several make a bank. */
export const reservoirSchema = group({
  /** Cans (or series pairs of them) in parallel. */
  cans: wholeField('reservoir.cans'),
  /** Whether each stands for two in series, with a balancing resistor across each. */
  pair: flag,
  capacitanceF: field('reservoir.capacitanceF'),
  ratedV: field('reservoir.ratedV'),
  esrOhm: field('reservoir.esrOhm'),
  rippleA: field('reservoir.rippleA'),
  /** Loss of capacitance by tolerance and again by age, per cent. */
  tolerancePct: field('reservoir.tolerancePct'),
  agedPct: field('reservoir.agedPct'),
  /** Temperature its life is promised at, °C. */
  gradeC: oneOfNumbers([85, 105], '85 or 105'),
  /** Resistor across each can of a series pair, ohm; null for what their leakage asks for. */
  balanceOhm: field('reservoir.balanceOhm'),
});

const stepSchema = byKind({
  choke: {
    inductanceH: field('filter.choke.inductanceH'),
    resistanceOhm: field('filter.choke.resistanceOhm'),
    ratedA: field('filter.choke.ratedA'),
    /** A swinging choke gives up half of what it can lose at half its rated current. */
    swinging: flag,
  },
  resistor: { resistanceOhm: field('filter.resistor.resistanceOhm') },
  capacitor: { capacitanceF: field('filter.capacitor.capacitanceF'), ratedV: field('filter.capacitor.ratedV') },
});
const steps = list(stepSchema, FILTER_STEPS_MAX, `${FILTER_STEPS_MAX} parts`);

/** What lies in the path of the direct current besides the reservoir. */
export const filterSchema = group({
  /** Between rectifier and reservoir: a choke makes it choke input. */
  before: steps,
  /** Between reservoir and load. */
  after: steps,
  /** Resistor across the reservoir, ohm; null for none. */
  bleederOhm: field('filter.bleederOhm'),
});

export const heaterSchema = group({ ratedV: field('heater.ratedV'), currentA: field('heater.currentA') });

/** A light-emitting diode and its resistor. */
export const indicatorSchema = group({
  at: oneOf(['rail', 'output']),
  currentA: field('indicator.currentA'),
  forwardV: field('indicator.forwardV'),
});

import { field, group, oneOf, orNull } from './schema-pieces';

/** From low to high, V. */
const span = (path: 'demand.windowV' | 'demand.rangeV') =>
  orNull(
    group({
      lowV: field(path),
      highV: field(path).test('above', '${path} has to lie above the low end', function (v) {
        return v! > (this.parent as { lowV: number }).lowV;
      }),
    }),
  );

/** What is asked of a supply, before anything about its rails is decided. */
const ask = {
  outputV: field('demand.outputV'),
  outputA: field('demand.outputA'),
  /** Allowed deviation of the output, +- per cent. */
  tolerancePct: field('demand.tolerancePct'),
  /** Ripple the load puts up with, V peak to peak. */
  rippleVpp: field('demand.rippleVpp'),
  kind: oneOf(['current', 'resistance', 'power']),
};
export const askSchema = group(ask);

const outputDemand = {
  ...ask,
  /** What it draws on the average of minutes, which is what parts heat by, A; null when it always draws outputA. */
  typicalA: field('demand.typicalA'),
  /** The least it ever draws, A; 0 when it may be unplugged. */
  leastA: field('demand.leastA').test('least', '${path} cannot be more than the load current', function (v) {
    return v! <= (this.parent as { outputA: number }).outputA;
  }),
  /** Volts it has to stay between, where that is no even deviation; null for the deviation. */
  window: span('demand.windowV'),
  /** Volts it has to be set between, for an output that can be set; null for all its knob reaches up to the volts asked. */
  range: span('demand.rangeV'),
};
/** What is asked of one output. */
export const outputDemandSchema = group(outputDemand);

export const demandSchema = group({
  ...outputDemand,
  /** Load on the negative rail of a split supply, A; null when it is the same. */
  negativeA: field('demand.negativeA'),
});

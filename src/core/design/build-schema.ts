import * as yup from 'yup';
import { INTERFACES } from '@/core/parts/heatsink';
import { field, flag, group, oneOf, oneOfNumbers } from './schema-pieces';

export const heatSchema = group({
  /** Air of the room, or in an open frame the air where the sink stands, °C. */
  ambientC: field('heat.ambientC'),
  /** Sink to air, K/W; null for no sink. */
  sinkKPerW: field('heat.sinkKPerW'),
  interface: oneOf(INTERFACES.map((i) => i.id)),
  /** What stands around it; its material is that of the mains side's box. */
  box: oneOf(['open', 'closed', 'vented']),
  /** Outside faces of the box that give heat away, cm2. */
  boxCm2: field('heat.boxCm2'),
  /** Whether the sink's fins stand outside the box. */
  sinkOutside: flag,
  /** Whether the rectifier is screwed to the same sink. */
  sharedWithRectifier: flag,
  /** A sink or chassis of the rectifier's own, K/W; null for none. */
  rectifierSinkKPerW: field('heat.rectifierSinkKPerW'),
  /** Whether all regulators that take a sink are on one: both rails of a split supply, and further outputs. */
  oneSink: flag,
  /** Whether copper and diodes are solved at the temperatures they come to, instead of at chosen ones. */
  together: flag,
  /** A fan over the sink: none, running always, or from a temperature of the sink on. */
  fan: oneOf(['none', 'fixed', 'switched']),
  /** What the fan draws from the rail, A; null where it is fed from elsewhere. */
  fanA: field('heat.fanA'),
  fanOnC: field('heat.fanOnC'),
});

export const mainsSideSchema = group({
  insulation: oneOf(['class I', 'class II']),
  box: oneOf(['metal', 'plastic']),
  /** Whether the plug goes in one way round only. */
  polarised: flag,
  homeWound: flag,
  /** A, null while not chosen. */
  primaryFuseA: field('mainsSide.primaryFuseA'),
  secondaryFuseA: field('mainsSide.secondaryFuseA'),
  switchPoles: oneOfNumbers([1, 2], '1 or 2'),
  softStart: flag,
  thermalCutout: flag,
  /** Points of the checklist that were ticked, by their id. */
  ticked: yup
    .array()
    .strict(true)
    .required('${path} is missing')
    .max(100)
    .of(yup.string().strict(true).required().max(60)),
});

import * as yup from 'yup';
import { heatSchema, mainsSideSchema } from './build-schema';
import { demandSchema, outputDemandSchema } from './demand-schema';
import { NAME_MAX, NOTE_MAX, OUTPUTS_MAX } from './how-many';
import { STAGES } from './kinds';
import { loadSchema } from './load-schema';
import { DESIGN_VERSION } from './migrate';
import { filterSchema, heaterSchema, indicatorSchema, rectifierSchema, reservoirSchema } from './rail-schema';
import { benchSchema, buildSchema, fixedSchema, logSchema, pickedSchema } from './record-schema';
import { preRegulatorSchema, regulatorSchema, regulatorSheetSchema } from './regulator-schema';
import { field, group, list, oneOf, orNull, text } from './schema-pieces';
import { mainsSchema, sourceSchema, transformerSchema } from './source-schema';

/** One more output, with its own load, its own regulator or none, and its own sink. */
const furtherOutput = group({
  /** Empty for a name that follows its volts. */
  name: text(NAME_MAX),
  rail: oneOf(['plus', 'minus']),
  demand: outputDemandSchema,
  regulator: regulatorSchema,
  regulatorSheet: regulatorSheetSchema,
  /** Its own sink, K/W; null for none. */
  sinkKPerW: field('output.sinkKPerW'),
});

/** What a stored document holds: the types of `design.ts` are inferred from it. */
export const designSchema = yup
  .object({
    format: yup.string<'ember-rail-design'>().required().oneOf(['ember-rail-design']),
    version: yup
      .number<typeof DESIGN_VERSION>()
      .required('${path} is missing')
      .oneOf([DESIGN_VERSION], `this file has version \${value}; this program reads versions 1 to ${DESIGN_VERSION}`),
    name: yup
      .string()
      .strict(true)
      .required('${path} is empty: give the design a name')
      .max(NAME_MAX, `\${path} is longer than ${NAME_MAX} letters`),
    note: text(NOTE_MAX),
    /** How far it is. */
    stage: oneOf(STAGES),
    demand: demandSchema,
    load: loadSchema,
    source: sourceSchema,
    mains: mainsSchema,
    transformer: transformerSchema,
    rectifier: rectifierSchema,
    reservoir: reservoirSchema,
    filter: filterSchema,
    /** A second winding on the same core that feeds alternating current, as for valve heaters; null for none. */
    heater: orNull(heaterSchema),
    regulator: regulatorSchema,
    /** What the data sheet of the very regulator at hand says; null for its class alone. */
    regulatorSheet: regulatorSheetSchema,
    /** What stands ahead of the regulator and shares its work. */
    preRegulator: preRegulatorSchema,
    /** Outputs beside the main one, each with its own regulator or none. */
    outputs: list(furtherOutput, OUTPUTS_MAX, `${OUTPUTS_MAX}`),
    /** A lamp that shows it is on; null for none. */
    indicator: orNull(indicatorSchema),
    heat: heatSchema,
    mainsSide: mainsSideSchema,
    picked: pickedSchema,
    fixed: fixedSchema,
    build: buildSchema,
    bench: benchSchema,
    log: logSchema,
  })
  .strict(true)
  .noUnknown(true, 'the file has a member that no design has: ${unknown}');

import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { outputDemand } from '@/core/design/defaults';

const [clock, dome, pen, drum, tide, physics] = demoDesigns() as [Design, Design, Design, Design, Design, Design];

const LONG = 'Supply of the eastern seismograph vault and all that hangs on its shelves, as left';

const output = (name: string, outputV: number, outputA: number) => ({
  name,
  rail: 'plus' as const,
  demand: outputDemand({ outputV, outputA, tolerancePct: 5, rippleVpp: 0.02, kind: 'current' }),
  regulator: { kind: 'fixed' as const, size: '78L' as const, outputV },
  regulatorSheet: null,
  sinkKPerW: null,
});

const named = (name: string, design: Design, patch: Patch = {}): Design => ({ ...applyPatch(design, patch), name });

/** Designs that try the drawing: long names, many outputs, four hundred volts, half a milliampere, everything failing. */
export const HOSTILE: readonly Design[] = [
  named(LONG.slice(0, 80), pen),
  named('Five outputs of thirty letters', clock, {
    outputs: [
      output('Transmitter of the north tower', 12, 0.05),
      output('Transmitter of the south tower', 12, 0.05),
      output('Recorder behind the tide gauge', 12, 0.05),
      output('Thermometers along the pier, 8', 15, 0.05),
    ],
  }),
  named('Four hundred volts', tide, {
    transformer: { ratedV: 330 },
    demand: { outputV: 400, outputA: 0.03 },
    reservoir: { ratedV: 450 },
  }),
  named('Half a milliampere', clock, { demand: { outputA: 0.0005 } }),
  named('Everything too small', pen, {
    transformer: { ratedV: 9, ratedVA: 3 },
    demand: { outputA: 3 },
    reservoir: { capacitanceF: 47e-6, ratedV: 6.3 },
  }),
  named('Fifty amperes at two volts', dome, {
    transformer: { ratedV: 4, ratedVA: 500 },
    demand: { outputV: 2, outputA: 40 },
    reservoir: { capacitanceF: 1, ratedV: 6.3 },
  }),
  named('A rail that idles', drum, { demand: { outputA: 0.25, negativeA: 0.0001 } }),
  named('Doubler of everything', clock, { rectifier: { kind: 'doubler' } }),
  named('Filters on both sides', physics, {
    filter: {
      before: [{ kind: 'choke', inductanceH: 0.1, resistanceOhm: 1.2, ratedA: 3, swinging: false }],
      after: [
        { kind: 'resistor', resistanceOhm: 0.47 },
        { kind: 'capacitor', capacitanceF: 4700e-6, ratedV: 63 },
      ],
    },
  }),
];

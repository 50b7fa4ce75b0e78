import { blankRow } from './blank-row';
import { blankDesign, MAINS_PRESETS, outputDemand } from './defaults';
import type { Consumer, Design, LoadRow, Reading } from './design';

const mains = MAINS_PRESETS[0]!.mains;

/** One line of a load table: so many of a thing that draws so much as long as it is on. */
const draws = (name: string, count: number, amps: number, part: Partial<Consumer> = {}): Consumer => ({
  name,
  count,
  on: null,
  output: 'main',
  kind: 'current',
  standingA: 0,
  typicalA: amps,
  peakA: amps,
  dutyPct: 100,
  startA: null,
  ...part,
});
const table = (...consumers: Consumer[]) => ({ consumers, togetherPct: 100, reservePct: 0 });

/** A reading of the afternoon the clock's supply was first switched on. */
const read = (point: string, value: number, mainsV: number, at: string): Reading => ({
  point,
  value,
  mainsV,
  fedFrom: 'mains',
  at: `2026-03-14T${at}:00Z`,
});

/** A row of the load line that was taken of the dome's supply one evening. */
const row = (loadA: number, mainsV: number, reservoirV: number, rippleV: number | null, at: string): LoadRow =>
  blankRow({ at: `2026-04-18T${at}:00Z`, mainsV, loadA, reservoirV, rippleV, loadedS: 120 });

/** A row of the seismograph amplifier's supply as the program's own stand-ins swept it. */
const swept = (
  loadA: number,
  mainsV: number,
  reservoirV: number,
  rippleV: number,
  outputV: number,
  sinkC: number,
  at: string,
): LoadRow =>
  blankRow({
    at: `2026-05-09T${at}:00Z`,
    mainsV,
    fedFrom: 'variable',
    loadA,
    reservoirV,
    rippleV,
    outputV,
    sinkC,
    loadedS: 120,
    note: 'swept, simulated',
  });

/** The drawn pictures of the clock's log, by the name they are kept under: that of their bytes. */
export const DEMO_PICTURES = {
  box: 'b0651749b0715029b9e7c82d496784b5',
  meter: '0a80cbca3a26f65161aee1182b94647a',
  sink: 'a95ac7f15be83e788bbec592df7ce109',
} as const;

/** The demo shelf: supplies of a small coastal school's observatory and workshop. Invented, every one. */
export function demoDesigns(): Design[] {
  const clock = blankDesign(
    'Slave-clock line, stairwell',
    { outputV: 24, outputA: 1.2, tolerancePct: 5, rippleVpp: 0.02, kind: 'current' },
    mains,
  );
  const dome = blankDesign(
    'Dome motor, unregulated',
    { outputV: 32, outputA: 4, tolerancePct: 30, rippleVpp: 4, kind: 'current' },
    mains,
  );
  const pen = blankDesign(
    'Tide-gauge pen recorder',
    { outputV: 12, outputA: 0.8, tolerancePct: 5, rippleVpp: 0.01, kind: 'current' },
    mains,
  );
  const drum = blankDesign(
    'Drum seismograph amplifier, ±18 V',
    { outputV: 18, outputA: 0.25, tolerancePct: 5, rippleVpp: 0.005, kind: 'current' },
    mains,
  );
  const tide = blankDesign(
    'Tide-telegraph receiver, valves',
    { outputV: 180, outputA: 0.045, tolerancePct: 25, rippleVpp: 3, kind: 'current' },
    mains,
  );
  const physics = blankDesign(
    'Physics room bench supply, 0 to 25 V',
    { outputV: 25, outputA: 1.5, tolerancePct: 5, rippleVpp: 0.005, kind: 'current' },
    mains,
  );
  const logger = blankDesign(
    'Tide-pole logger, on the jetty',
    { outputV: 5, outputA: 0.18, tolerancePct: 5, rippleVpp: 0.02, kind: 'current' },
    mains,
  );
  const knobs = {
    kind: 'bench',
    maxV: 25,
    limitA: 1.65,
    referenceV: 2.5,
    referencePct: 1,
    gain: 60,
    opampRail: 'raw',
    shuntOhm: 0.33,
    opampMaxV: 44,
    shuntPct: 1,
    resistorPct: 1,
  } as const;
  return [
    {
      ...clock,
      stage: 'ordered',
      note: 'Feeds fourteen slave movements and the hall chime. Bridge on the landing, sink outside the case.',
      load: table(draws('Slave movements', 14, 0.08), draws('Hall chime', 1, 0.08)),
      transformer: { ...clock.transformer, ratedV: 24, ratedVA: 100, regulationPct: 9, hotC: 75, leakageH: 0 },
      rectifier: { ...clock.rectifier, kind: 'bridge', diode: 'si-3a' },
      reservoir: { ...clock.reservoir, capacitanceF: 6800e-6, ratedV: 50 },
      regulator: { kind: 'fixed', size: '78S', outputV: 24 },
      heat: { ...clock.heat, ambientC: 35, sinkKPerW: 1.5, interface: 'mica' },
      filter: { ...clock.filter, bleederOhm: 220e3 },
      mainsSide: {
        ...clock.mainsSide,
        primaryFuseA: 0.5,
        ticked: ['inlet', 'earth', 'safety-transformer', 'clearance', 'cut-out', 'label'],
      },
      log: [
        {
          day: '2026-03-08',
          what: 'Wired transformer, bridge and reservoir; the sink is bolted outside the case.',
          why: 'In July the air inside the box would be the warmest place for it.',
          photos: [DEMO_PICTURES.box, DEMO_PICTURES.sink],
        },
        {
          day: '2026-03-14',
          what: 'First power through a 60 W lamp, then without; all test points read. At TP3 24.09 V.',
          why: '',
          photos: [DEMO_PICTURES.meter],
        },
        {
          day: '2026-05-02',
          what: 'Bleeder of 220 kΩ across the reservoir.',
          why: 'It still held 30 V ten minutes after the plug was out, with the clocks taken off.',
          photos: [],
        },
        {
          day: '2026-05-16',
          what: 'Taken out of its old case and begun anew in a larger one: mains and transformer are in, the bridge half.',
          why: 'The old case had no room for the bleeder away from the reservoir.',
          photos: [],
        },
      ],
      build: {
        ...clock.build,
        placed: [
          'inlet 1: 230 V 50 Hz',
          'primary-fuse 1: T 500 mA',
          'switch 1: two poles',
          'transformer 1: 24 V',
          'bleeder 1: 220 kΩ',
          'rectifier 1: 1N5404',
          'rectifier 2: 1N5404',
        ],
      },
      bench: {
        ...clock.bench,
        soak: [
          { afterS: 60, tempC: 23 },
          { afterS: 180, tempC: 27 },
          { afterS: 360, tempC: 32 },
          { afterS: 600, tempC: 37 },
          { afterS: 900, tempC: 41 },
        ],
        readings: [
          read('mains', 231.2, 231.2, '15:02'),
          read('secondary-open', 26.5, 231.2, '15:09'),
          read('reservoir-idle', 36.1, 231.2, '15:21'),
          read('output-idle', 24.09, 231.2, '15:34'),
          read('reservoir-loaded', 31.8, 230.6, '15:52'),
          read('reservoir-ripple', 1.41, 230.6, '15:55'),
          read('output-loaded', 24.05, 230.6, '15:57'),
          read('sink-warm', 51, 230.9, '16:31'),
        ],
      },
    },
    {
      ...dome,
      stage: 'measured',
      note: 'Home-wound on a salvaged core. The controller takes 23 to 41 V and brakes into the reservoir.',
      log: [
        {
          day: '2026-04-11',
          what: 'Rewound the secondary: 62 turns of 2 mm, two in hand.',
          why: 'The salvaged winding gave 31 V and the controller takes no more than 41 V braking.',
          photos: [],
        },
        {
          day: '2026-04-18',
          what: 'Load line with the heater bank, 0 to 4 A.',
          why: 'To know its real copper.',
          photos: [],
        },
      ],
      bench: {
        ...dome.bench,
        loadLine: [
          row(0, 231.4, 37.39, null, '19:05'),
          row(0.4, 231.1, 35.76, 0.196, '19:12'),
          row(1, 230.8, 34.95, 0.44, '19:18'),
          row(2, 230.2, 33.65, 0.84, '19:25'),
          row(3, 229.7, 32.79, 1.18, '19:33'),
          row(4, 229.1, 31.96, 1.57, '19:41'),
        ],
      },
      transformer: {
        ...clock.transformer,
        ratedV: 25.5,
        ratedVA: 225,
        regulationPct: 6.5,
        hotC: 70,
        leakageH: 0,
        source: {
          kind: 'wound',
          plan: {
            areaMm2: 1720,
            windowMm2: 1800,
            meanTurnMm: 236,
            fluxT: 1.15,
            turnsPerVolt: 2.28,
            primaryTurns: 524,
            primaryWireMm: 0.71,
            secondaryTurns: 62,
            secondaryWireMm: 2,
          },
        },
      },
      load: {
        consumers: [
          {
            name: 'Dome motor and its controller',
            count: 1,
            on: null,
            output: 'main',
            kind: 'motor',
            standingA: 0.12,
            typicalA: 2.8,
            peakA: 3.4,
            dutyPct: 25,
            startA: null,
          },
          {
            name: 'Slit lamps',
            count: 2,
            on: null,
            output: 'main',
            kind: 'lamp',
            standingA: 0,
            typicalA: 0.3,
            peakA: 0.3,
            dutyPct: 60,
            startA: null,
          },
        ],
        togetherPct: 100,
        reservePct: 0,
      },
      mainsSide: { ...dome.mainsSide, homeWound: true, primaryFuseA: 1.6 },
      rectifier: { ...clock.rectifier, kind: 'bridge', diode: 'si-25a' },
      reservoir: { ...dome.reservoir, capacitanceF: 22000e-6, ratedV: 63 },
    },
    {
      ...pen,
      stage: 'measured',
      note: 'Built in a hurry from what lay about. Works on the bench; the trace jitters on winter evenings.',
      load: table(draws('Chart drive', 1, 0.55), draws('Pen amplifier', 1, 0.25)),
      // One winter evening, to find out why the trace jitters.
      bench: {
        ...pen.bench,
        readings: [
          read('mains', 230.6, 230.6, '19:40'),
          read('secondary-open', 14.5, 230.6, '19:48'),
          read('reservoir-idle', 19.35, 230.6, '19:55'),
          read('reservoir-loaded', 10.3, 230.1, '20:06'),
          read('reservoir-ripple', 8.5, 230.1, '20:11'),
        ],
      },
      transformer: { ...clock.transformer, ratedV: 12, ratedVA: 16, regulationPct: null, hotC: 75, leakageH: 0 },
      rectifier: { ...clock.rectifier, kind: 'bridge', diode: 'si-1a' },
      reservoir: { ...pen.reservoir, capacitanceF: 1000e-6, ratedV: 25 },
      regulator: { kind: 'fixed', size: '78', outputV: 12 },
      heat: { ...clock.heat, ambientC: 40, sinkKPerW: 20, interface: 'dry' },
    },
    {
      ...drum,
      stage: 'built',
      build: {
        ...drum.build,
        box: { ...drum.build.box, inside: { wMm: 200, dMm: 160, hMm: 100 } },
        board: { ...drum.build.board, kind: 'one side' },
      },
      note: 'Two rails for the amplifier and the pen motor drive; the pen draws on the plus side only, so the loads differ.',
      load: table(
        draws('Seismograph amplifier', 1, 0.18),
        draws('Pen motor drive', 1, 0.07),
        draws('Seismograph amplifier, minus side', 1, 0.18, { output: 'minus' }),
      ),
      bench: {
        ...drum.bench,
        loadLine: [
          swept(0.0, 230.5, 31.13, 0.0342, 18.2, 35.7, '18:42'),
          swept(0.04994, 230.8, 30.03, 0.249, 18.18, 44.9, '18:44'),
          swept(0.09985, 230.7, 29.22, 0.44, 18.18, 53.8, '18:46'),
          swept(0.1503, 230.7, 28.58, 0.621, 18.21, 60.6, '18:48'),
          swept(0.2004, 230.7, 27.98, 0.786, 18.21, 65.8, '18:50'),
          swept(0.2507, 230.9, 27.52, 0.953, 18.18, 70.1, '18:52'),
        ],
      },
      demand: { ...drum.demand, negativeA: 0.18 },
      transformer: { ...clock.transformer, ratedV: 20, ratedVA: 30, regulationPct: 14, hotC: 70, leakageH: 0 },
      rectifier: { ...clock.rectifier, kind: 'split-bridge', diode: 'si-1a' },
      reservoir: { ...drum.reservoir, capacitanceF: 2200e-6, ratedV: 50 },
      regulator: { kind: 'fixed', size: '78M', outputV: 18 },
      heat: { ...clock.heat, ambientC: 35, sinkKPerW: 10, interface: 'mica' },
    },
    {
      ...tide,
      stage: 'built',
      note: 'Anode supply through a choke for soft current, heaters from their own winding. Dangerous for minutes after switching off.',
      load: table(draws('Output valve', 1, 0.03), draws('Detector and oscillator', 1, 0.015)),
      transformer: { ...clock.transformer, ratedV: 205, ratedVA: 60, regulationPct: 11, hotC: 75, leakageH: 0.02 },
      rectifier: { ...clock.rectifier, kind: 'centre-tap', diode: 'si-1a' },
      reservoir: { ...tide.reservoir, capacitanceF: 47e-6, ratedV: 400 },
      filter: {
        before: [{ kind: 'choke', inductanceH: 15, resistanceOhm: 220, ratedA: 0.08, swinging: false }],
        after: [],
        bleederOhm: 10000,
      },
      heater: { ratedV: 6.3, currentA: 1.8 },
    },
    {
      ...physics,
      stage: 'chosen',
      note: 'Volts and amps by two knobs. The fan starts by the sink’s own temperature and stands still through most lessons.',
      load: table(draws('What the lesson hangs on it, at most', 1, 1.5)),
      transformer: { ...clock.transformer, ratedV: 25, ratedVA: 160, regulationPct: 7, hotC: 70, core: 'toroid' },
      rectifier: { ...clock.rectifier, kind: 'bridge', diode: 'si-8a' },
      reservoir: { ...physics.reservoir, cans: 2, capacitanceF: 6800e-6, ratedV: 63 },
      regulator: { ...knobs, transistor: 'tip3055', passes: 3, emitterOhm: 0.15 },
      heat: {
        ...clock.heat,
        ambientC: 25,
        sinkKPerW: 1,
        interface: 'mica',
        box: 'vented',
        boxCm2: 2400,
        fan: 'switched',
        fanOnC: 60,
        together: true,
      },
      bench: {
        ...physics.bench,
        calibration: [
          { what: 'volts', set: 2, read: 2.06 },
          { what: 'volts', set: 10, read: 10.18 },
          { what: 'volts', set: 18, read: 18.3 },
          { what: 'volts', set: 25, read: 25.41 },
          { what: 'amps', set: 0.3, read: 0.29 },
          { what: 'amps', set: 0.8, read: 0.77 },
          { what: 'amps', set: 1.5, read: 1.44 },
        ],
      },
    },
    {
      ...physics,
      stage: 'sketch',
      name: 'Physics room bench supply, first try',
      note: 'One transistor on a middling sink. Fine at 25 V; set it to a volt at full current and it cooks.',
      load: table(draws('What the lesson hangs on it, at most', 1, 1.5)),
      transformer: { ...clock.transformer, ratedV: 25, ratedVA: 160, regulationPct: 7, hotC: 70, core: 'toroid' },
      rectifier: { ...clock.rectifier, kind: 'bridge', diode: 'si-8a' },
      reservoir: { ...physics.reservoir, cans: 2, capacitanceF: 6800e-6, ratedV: 63 },
      regulator: { ...knobs, transistor: '2n3055', passes: 1, emitterOhm: 0.1 },
      heat: { ...clock.heat, ambientC: 25, sinkKPerW: 2.2, interface: 'mica', box: 'vented', boxCm2: 2400 },
    },
    {
      ...logger,
      stage: 'chosen',
      note: 'No mains on the jetty: a battery carried out every other day, and leads that have been swapped once already.',
      load: table(
        draws('Logger, writing now and then', 1, 0.12, { peakA: 0.18 }),
        draws('Radio', 1, 0.05, { output: 'out-1' }),
      ),
      demand: { ...logger.demand, typicalA: 0.12 },
      source: {
        kind: 'battery',
        freshV: 12.9,
        emptyV: 11,
        resistanceOhm: 0.035,
        capacityAh: 7,
        reverseDiode: true,
      },
      rectifier: { ...logger.rectifier, diode: 'sk-3a' },
      reservoir: { ...logger.reservoir, capacitanceF: 470e-6, ratedV: 25 },
      regulator: { kind: 'low-dropout', part: 'ldo-800', outputV: 5, boardCm2: 6 },
      outputs: [
        {
          name: 'Radio',
          rail: 'plus',
          demand: outputDemand({ outputV: 8, outputA: 0.05, tolerancePct: 5, rippleVpp: 0.05, kind: 'current' }),
          regulator: { kind: 'fixed', size: '78L', outputV: 8 },
          regulatorSheet: null,
          sinkKPerW: null,
        },
      ],
      heat: { ...logger.heat, ambientC: 35, box: 'closed', boxCm2: 400, sinkOutside: false },
      mainsSide: { ...logger.mainsSide, box: 'plastic', secondaryFuseA: 0.5 },
    },
  ];
}

import { testPoints } from '@/core/bench/test-points';
import { applyPatch, type Design } from '@/core/design/design';
import { pictureOf } from '@/core/judge/picture';
import { BANDS } from '@/core/picture/picture';
import { comparedFigures } from '@/core/picture/comparison';
import { stationFigures } from '@/core/picture/station-figures';
import { mainsSide } from '@/core/mains-side/mains-side';
import type { Figure } from '@/core/study/figure';
import { demoDesigns } from '@/core/design/demo-designs';
import { clock, dome, drum, tide } from '../support/demos';
import { STATIONS } from '../support/stations';

/** Inputs of a figure by their names; asking for one that is not there is a hole in its working. */
function inputsOf(figure: Figure) {
  return (label: string | RegExp): number => {
    const found = figure.inputs.find((i) => (typeof label === 'string' ? i.label === label : label.test(i.label)));
    if (!found)
      throw new Error(
        `${figure.id} does not show '${String(label)}', only ${figure.inputs.map((i) => i.label).join(', ')}`,
      );
    return found.value;
  };
}

/** Kelvins per watt a working adds up: every input in K/W. */
const chainOf = (f: Figure) => f.inputs.filter((i) => i.unit === 'K/W').reduce((sum, i) => sum + i.value, 0);

type Worked = (of: ReturnType<typeof inputsOf>, figure: Figure, design: Design) => number | null;

const throughChain: Worked = (of, f) => {
  const onSink = f.inputs.find((i) => i.label === 'all watts on the sink');
  const watts = of('watts in it');
  const air = of(/^air/);
  if (!onSink) return air + watts * chainOf(f);
  const sink = of(/^sink to air/);
  return air + onSink.value * sink + watts * (chainOf(f) - sink);
};

const onMetal: Worked = (of, f) =>
  f.inputs.some((i) => i.label === 'all watts on the sink')
    ? of(/^air/) + of('all watts on the sink') * of(/^sink to air/)
    : of(/^air/) + of('watts in it') * (of('junction to air') - of('junction to case'));

/** What all capacitors hold: each with its volts behind it, and how many are alike. */
const heldOf: Worked = (_of, { inputs }) =>
  inputs.reduce((sum, { label, value, unit }, n) => {
    if (unit !== 'F') return sum;
    const alike = Number(/(\d+) alike/.exec(label)?.[1] ?? 1);
    return sum + alike * 0.5 * value * inputs[n + 1]!.value ** 2;
  }, 0);

/** Open volts of a winding at some mains, whichever way they are known. */
const openAt =
  (mains: string): Worked =>
  (of, _f, { transformer: { source } }) => {
    switch (source.kind) {
      case 'plate':
        return (of('rated volts') * (1 + of('regulation') / 100) * of(mains)) / of('nominal mains');
      case 'wound':
        return (of(mains) * of('secondary turns')) / of('primary turns');
      case 'fitted':
        return (of('open volts fitted') * of(mains)) / of('mains then');
      default:
        return (of('open volts read') * of(mains)) / of('mains then');
    }
  };

/** Every figure that is a formula of what is shown beside it, worked out by hand from that. */
const WORKED: Record<string, Worked> = {
  'winding-open': openAt('mains'),
  'regulator-junction': throughChain,
  junction: throughChain,
  'short-circuit': throughChain,
  'regulator-sink': onMetal,
  'sink-touch': onMetal,
  'sink-warm': onMetal,
  efficiency: (of) => (100 * of('load')) / of(/^from the/),
  'winding-heat': (of, f) => {
    // The copper loss at 20 °C grows with the copper's own temperature: the balance holds at the value itself.
    const loss = (of('copper loss at 20 °C') * (234.5 + f.value)) / 254.5;
    return of('air') + (of('iron') + loss) * of('winding to air');
  },
  'reservoir-energy': heldOf,
  stored: heldOf,
  'secondary-open': openAt('mains read'),
  'load-current': (of, _f, d) =>
    d.demand.kind === 'resistance' ? (of('load') * (of('output') - of('burden'))) / of('output') : of('load'),
  'choke-critical': (of, _f, d) => of('output') / (3 * 2 * Math.PI * d.mains.frequencyHz * of('inductance')),
  'filter-resonance': (of) => 1 / (2 * Math.PI * Math.sqrt(of('choke') * of('capacitor behind it'))),
  'output-window': (of) => {
    const middle = (of('window from') + of('to')) / 2;
    return (100 * Math.max(middle - of('lowest'), of('highest') - middle)) / middle;
  },
  'lead-short': (of) => of('open volts') / of('resistance'),
  short: (of) => (of('open volts') / of('all copper hot')) * (of('open volts') / of('mains volts')),
  discharge: (of) => of(/^bleeder/) * of(/^C,/) * Math.log(of('V₀') / of(/^V,/)),
  'inrush-i2t': (of, _f, d) => (of('peak, worst') ** 2 / 2) * (1 / d.mains.frequencyHz / 4),
  'inside-air': (of) => of('room') + of('all that stays inside') * of('box'),
  'safe-area': (of) => (100 * of('through each')) / of('it bears there'),
  headroom: (of, f) =>
    f.inputs.some((i) => i.label === 'valley')
      ? of('valley') - of(/needs$/)
      : of(/^lowest/) - of('output') - of('dropout'),
  rises: (of) => 100 * (of(/idle$/) / of(/loaded$/) - 1),
  ripple: (of) => of('highest') - of('lowest'),
  sink: onMetal,
  'battery-life': (of) => (of('holds') * of(/^used/)) / 100 / of('mean current'),
  'hold-up': (of) => of('lowest') - of('needed'),
  'regulator-headroom': (of) => of('valley') - of('needed'),
  'winding-ohm': (of, f) =>
    f.inputs.some((i) => i.label === 'its own, cold')
      ? ((of('its own, cold') + of(/^the primary’s/)) * (234.5 + of('copper'))) / 254.5
      : null,
  'output-ripple': (of, f) =>
    f.inputs.some((i) => /^rejection at/.test(i.label))
      ? of('reservoir ripple') * 10 ** (-of(/^rejection at/) / 20) + of('let through by dropout')
      : null,
  'primary-running': (of) => {
    const full = of('reflected, full load');
    return Math.hypot(Math.sqrt(Math.min(of('reflected, lasting load'), full) * full), of('magnetising current'));
  },
  'primary-full': (of) => Math.hypot(of('reflected, full load'), of('magnetising current')),
};

/** The demos, and the clock with its transformer known in every other way, in a box, with all on one sink. */
const DESIGNS: Design[] = [
  ...demoDesigns(),
  ...(
    [
      { kind: 'ohms', primaryOhm: 30, secondaryOhm: 0.5, openV: 26, mainsV: 231 },
      { kind: 'test', openV: 26, loadedV: 24, loadA: 2, mainsV: 234 },
    ] as const
  ).map((source) => applyPatch(clock, { transformer: { source } })),
  applyPatch(clock, { heat: { ...clock.heat, box: 'closed', sinkOutside: false, sharedWithRectifier: true } }),
  applyPatch(drum, { heat: { ...drum.heat, oneSink: true, fan: 'fixed' } }),
  applyPatch(dome, { demand: { kind: 'resistance' } }),
  // Enough behind it to hurt, and a resistor that takes it down.
  applyPatch(tide, { filter: { ...tide.filter, bleederOhm: 22000 } }),
];

test('every formula’s figure comes out of what is shown beside it', () => {
  const seen = new Map<string, number>();
  for (const design of DESIGNS) {
    const { picture, study } = pictureOf(design);
    const figures = [
      ...STATIONS.flatMap((s) => BANDS.flatMap((band) => stationFigures(picture, s, band))),
      ...picture.verdicts.map((v) => v.figure),
      ...mainsSide(study).figures,
      ...Object.values(comparedFigures(picture, study)),
      ...testPoints(design, () => design.mains.voltageRms).map((p) => p.expected),
    ];
    for (const figure of figures) {
      const by = WORKED[figure.id]?.(inputsOf(figure), figure, design) ?? null;
      if (by === null) continue;
      seen.set(figure.id, (seen.get(figure.id) ?? 0) + 1);
      expect([design.name, figure.id, figure.value]).toEqual([
        design.name,
        figure.id,
        expect.closeTo(by, by > 10 ? 2 : 3),
      ]);
    }
  }
  // None of them was left out by never being asked.
  expect(Object.keys(WORKED).filter((id) => !seen.has(id))).toEqual([]);
});

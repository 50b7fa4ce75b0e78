import type { Design } from '@/core/design/design';
import type { SET_KINDS } from '@/core/design/kinds';
import { formatQuantity as q } from '@/core/quantity/format';
import type { Figure } from '@/core/study/figure';

/** What was set: the output's volts, its current limit, or what a first meter showed of the same place. */
export type SetKind = (typeof SET_KINDS)[number];

/** One pair against the straight line through all of them. */
export interface PairRead {
  set: number;
  read: number;
  /** What was read above what was set. */
  off: number;
  /** What the meters may be off there. */
  allowed: number;
  /** What is left of it once the straight line is taken off. */
  left: number;
}

/** A scale against the meter: a share of what is set, and a constant. */
export interface ScaleRead {
  unit: 'V' | 'A';
  /** In one sentence: what is off, and what is to be turned. */
  sentence: string;
  gain: Figure;
  offset: Figure;
  left: Figure;
  pairs: PairRead[];
}

const sureTo = (sigma: number, unit: Figure['unit']) => ({ label: 'sure to, ±', value: SURE * sigma, unit });

/** A figure has to stand out of its own spread so many times before anybody turns a screw for it. */
const SURE = 2;
/** A printed error is taken as twice the standard deviation, as everywhere. */
const PRINTED = 0.5;
/** What nobody reads finer, V or A. */
const LEAST = 1e-4;

/** What is wrong with a scale, and whose screw it is. */
const TRIMS: Readonly<Record<SetKind, { gain: string; offset: string; curved: string }>> = {
  volts: {
    gain: 'trim the full scale near the top of the range',
    offset: 'trim the zero at the bottom, before the full scale',
    curved: 'The scale is not straight: a knob’s own track, or the supply lets go at one end',
  },
  amps: {
    gain: 'the shunt is off by as much, or a lead’s ohms are in it',
    offset: 'the limit’s amplifier has that much across its inputs',
    curved: 'The limit does not keep to its scale: it folds back, or warms',
  },
  meter: {
    gain: 'one of the two is off by as much: a third tells which',
    offset: 'short the leads of each: the one that does not show nothing is it',
    curved: 'They do not differ by a scale: ranges were changed, or a battery is low',
  },
};

/**
 * The straight line through what was set and what was read, each pair counting as much as the meter is sure of it.
 * @returns a sentence where there is too little to tell a share from a constant
 */
export function setAgainstRead(design: Design, what: SetKind): ScaleRead | string {
  const pairs = design.bench.calibration.filter((s) => s.what === what);
  if (new Set(pairs.map((p) => p.set)).size < 2)
    return 'Two pairs, one low and one high in the range, tell what is off by a share and what by a constant.';
  const unit = what === 'amps' ? 'A' : 'V';
  const { meterPct, meterDigitsV } = design.bench;
  // The digits are the volts ranges'; of the amps range the share alone is known. Two meters are off by both.
  const errorAt = (read: number) =>
    (what === 'meter' ? Math.SQRT2 : 1) *
    Math.max(LEAST, (meterPct / 100) * read + (what === 'amps' ? 0 : meterDigitsV));
  const weights = pairs.map((p) => 1 / (PRINTED * errorAt(p.read)) ** 2);
  const sum = (f: (p: { set: number; read: number }) => number) =>
    pairs.reduce((total, p, n) => total + weights[n]! * f(p), 0);
  const s = sum(() => 1);
  const sx = sum((p) => p.set);
  const sxx = sum((p) => p.set ** 2);
  const spread = s * sxx - sx * sx;
  const slope = (s * sum((p) => p.set * p.read) - sx * sum((p) => p.read)) / spread;
  const offset = (sum((p) => p.read) - slope * sx) / s;
  const gainPct = 100 * (slope - 1);
  const gainSigmaPct = 100 * Math.sqrt(s / spread);
  const offsetSigma = Math.sqrt(sxx / spread);
  const told = pairs.map((p): PairRead => ({
    set: p.set,
    read: p.read,
    off: p.read - p.set,
    allowed: errorAt(p.read),
    left: p.read - offset - slope * p.set,
  }));
  const worst = told.reduce((a, b) => (Math.abs(b.left) / b.allowed > Math.abs(a.left) / a.allowed ? b : a));
  const figure = (
    id: string,
    label: string,
    value: number,
    of: Figure['unit'],
    more: Figure['inputs'],
    expression = 'straight line through all pairs, each counted by what the meter may be off there',
  ): Figure => ({
    id: `set-${what}-${id}`,
    label,
    value,
    unit: of,
    origin: 'measured',
    expression,
    inputs: [
      { label: 'pairs', value: pairs.length, unit: '', origin: 'measured' },
      { label: 'meter, of the reading', value: meterPct, unit: '%' },
      ...(what === 'amps' ? [] : [{ label: 'meter, digits', value: meterDigitsV, unit: 'V' as const }]),
      ...more,
    ],
    source: 'Least squares, weighted.',
    assumes: what === 'meter' ? ['Both meters are taken to be as good as yours.'] : [],
  });
  return {
    unit,
    sentence: inWords(what, unit, { gainPct, gainSigmaPct, offset, offsetSigma, curved: worst }),
    gain: figure('gain', 'By a share', gainPct, '%', [sureTo(gainSigmaPct, '%')]),
    offset: figure('offset', 'By a constant', offset, unit, [sureTo(offsetSigma, unit)]),
    left: figure(
      'left',
      'Left at the worst pair',
      Math.abs(worst.left),
      unit,
      [
        { label: 'set', value: worst.set, unit },
        { label: 'read', value: worst.read, unit, origin: 'measured' },
        { label: 'the line says', value: offset + slope * worst.set, unit },
        { label: 'the meter may be off, ±', value: worst.allowed, unit },
      ],
      'read − what the line says, at the pair farthest off it for its meter',
    ),
    pairs: told,
  };
}

function inWords(
  what: SetKind,
  unit: 'V' | 'A',
  f: { gainPct: number; gainSigmaPct: number; offset: number; offsetSigma: number; curved: PairRead },
): string {
  const subject = what === 'meter' ? 'Yours reads' : 'It reads';
  const trim = TRIMS[what];
  const side = (v: number) => (v > 0 ? 'high' : 'low');
  const parts = [
    ...(Math.abs(f.gainPct) > SURE * f.gainSigmaPct
      ? [`${q(Math.abs(f.gainPct), '%', 2)} ${side(f.gainPct)} over the range: ${trim.gain}`]
      : []),
    ...(Math.abs(f.offset) > SURE * f.offsetSigma
      ? [`${q(Math.abs(f.offset), unit, 2)} ${side(f.offset)} at nothing: ${trim.offset}`]
      : []),
  ];
  const bent =
    Math.abs(f.curved.left) > f.curved.allowed
      ? ` ${trim.curved}: ${q(Math.abs(f.curved.left), unit, 2)} is left at ${q(f.curved.set, unit)}.`
      : '';
  if (parts.length === 0)
    return bent === '' ? 'All of it lies within what the meter can tell: nothing to turn.' : bent.trim();
  return `${subject} ${parts.join('; and ')}.${bent}`;
}

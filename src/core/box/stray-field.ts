import type { Figure } from '@/core/study/figure';
import { strayDistance } from '@/core/study/noise';

/** Field of laminated iron of 100 VA at a tenth of a metre, T, falling with the cube of the distance; a ring leaves a fifth. Rule of thumb. */
const FIELD_T = 10e-6;
const AT_M = 0.1;
const AT_VA = 100;
const RING_SHARE = 0.2;
/** The loop an input makes with its ground, m2, and the hum it may pick up, V: what a microphone or a tape head still shows. Rules of thumb. */
const LOOP_M2 = 1e-3;
const ALLOWED_V = 1e-6;

/**
 * How far an input of small signals stays from a transformer, mm: its loop picks up 2πf·B·A, and B falls with the cube of the
 * distance. Rule of thumb; turning the transformer or a screen does more than another centimetre.
 */
export function fieldDistance(ratedVA: number, ring: boolean, frequencyHz: number): Figure {
  const surfaceT = FIELD_T * (ratedVA / AT_VA) * (ring ? RING_SHARE : 1);
  const pickedUpV = 2 * Math.PI * frequencyHz * surfaceT * LOOP_M2;
  return {
    id: 'field-distance',
    label: 'Transformer to small-signal input',
    value: strayDistance(1000 * AT_M, pickedUpV / ALLOWED_V),
    unit: 'mm',
    origin: 'rule of thumb',
    expression: '100 mm × (hum picked up at 100 mm / hum allowed)^(1/3)',
    inputs: [
      { label: 'picked up at 100 mm', value: pickedUpV, unit: 'V', origin: 'rule of thumb' },
      { label: 'allowed', value: ALLOWED_V, unit: 'V', origin: 'rule of thumb' },
      { label: 'loop of the input', value: 1e4 * LOOP_M2, unit: 'cm²', origin: 'rule of thumb' },
    ],
    source:
      'A stray field falls about as 1/r³; 10 µT at 100 mm from laminated iron of 100 VA, a fifth of it from a ring.',
    assumes: ['The loop lies as badly as it can: turned by a quarter it picks up next to nothing.'],
  };
}

import type { DrawnSymbol } from './drawing';

/** Two habits of drawing: resistors and chokes as rectangles (IEC 60617), or as zigzags and bumps (IEEE 315). */
export type Convention = 'rectangles' | 'zigzags';

/** One stroke of a symbol, in its own lying coordinates about its middle. */
export interface Stroke {
  d: string;
  /** Whether it is filled with its own ink instead of being drawn round. */
  solid?: boolean;
  dashed?: boolean;
}

const circle = (x: number, y: number, r: number) =>
  `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;
const box = (w: number, h: number) => `M${-w / 2} ${-h / 2}H${w / 2}V${h / 2}H${-w / 2}Z`;

function zigzag(length: number, breadth: number): string {
  const teeth = 6;
  const step = length / (teeth + 1);
  let d = `M${-length / 2} 0L${-length / 2 + step / 2} ${-breadth / 2}`;
  for (let n = 1; n < teeth; n++)
    d += `L${-length / 2 + step / 2 + n * ((length - step) / (teeth - 1))} ${n % 2 ? breadth / 2 : -breadth / 2}`;
  return `${d}L${length / 2} 0`;
}

/** Bumps of a coil of so many turns, straight ends where it is longer than they are. */
function bumps(length: number, side: 1 | -1): string {
  const turns = Math.max(3, Math.min(7, Math.floor(length / 12)));
  const r = Math.min(6, length / (2 * turns));
  const from = -turns * r;
  let d = `M${-length / 2} 0H${from}`;
  for (let n = 0; n < turns; n++) d += `a${r} ${r} 0 0 ${side === 1 ? 1 : 0} ${2 * r} 0`;
  return `${d}H${length / 2}`;
}

/** What a symbol is drawn with. */
export function strokesOf(
  { kind, length: l, breadth: b, negative, mirrored, pins }: DrawnSymbol,
  convention: Convention,
): Stroke[] {
  switch (kind) {
    case 'resistor':
    case 'heater':
      return [
        { d: convention === 'zigzags' ? zigzag(l, b) : box(l, b) },
        ...(kind === 'heater'
          ? [{ d: `M${-l / 4} ${-b / 2}V${b / 2}M0 ${-b / 2}V${b / 2}M${l / 4} ${-b / 2}V${b / 2}` }]
          : []),
      ];
    case 'pot':
      return [
        { d: convention === 'zigzags' ? zigzag(l, 12) : box(l, 12) },
        { d: `M0 ${-b / 2}V-7` },
        { d: 'M-3.2 -11.5L0 -6.2L3.2 -11.5Z', solid: true },
      ];
    case 'fuse':
      return [{ d: box(l, b) }, { d: `M${-l / 2} 0H${l / 2}` }];
    case 'cutout':
      return [{ d: box(l, b) }, { d: `M${-l / 2} 0H-6M6 0H${l / 2}M-6 0L5 -4` }];
    case 'choke':
      return convention === 'zigzags'
        ? [{ d: bumps(l, 1) }, { d: `M${-l / 2 + 4} -9H${l / 2 - 4}` }]
        : [{ d: box(l, 11), solid: true }];
    case 'coil':
      return [{ d: bumps(l, 1) }];
    case 'primary':
      return [{ d: bumps(l, -1) }];
    case 'core':
      return [{ d: `M${-l / 2} -2H${l / 2}M${-l / 2} 2H${l / 2}` }];
    case 'capacitor':
      return [{ d: `M${-l / 2} ${-b / 2}V${b / 2}M${l / 2} ${-b / 2}V${b / 2}` }];
    case 'electrolytic':
      return [
        { d: `M${-l / 2} ${-b / 2}V${b / 2}H${-l / 2 + 4}V${-b / 2}Z` },
        { d: `M${l / 2 - 3.5} ${-b / 2}H${l / 2}V${b / 2}H${l / 2 - 3.5}Z`, solid: true },
        { d: `M${-l / 2 - 10} ${-b / 2 + 3}h6M${-l / 2 - 7} ${-b / 2}v6` },
      ];
    case 'diode':
      return [{ d: `M${-l / 2} ${-b / 2 + 1}V${b / 2 - 1}L${l / 2} 0Z` }, { d: `M${l / 2} ${-b / 2}V${b / 2}` }];
    case 'zener':
      return [
        { d: `M${-l / 2} ${-b / 2 + 2}V${b / 2 - 2}L${l / 2} 0Z` },
        { d: `M${l / 2 - 5} ${-b / 2}H${l / 2}V${b / 2}` },
      ];
    case 'led':
      return [
        { d: `M${-l / 2} -8V8L${l / 2} 0Z` },
        { d: `M${l / 2} -9V9` },
        { d: 'M0 -9L5 -15M5 -7L10 -13' },
        { d: 'M6.5 -16L3 -14.6L5.4 -12.4ZM11.5 -14L8 -12.6L10.4 -10.4Z', solid: true },
      ];
    case 'valve':
      return [{ d: circle(0, 0, l / 2) }, { d: `M${-l / 2} 0H-5M-5 -7V7M5 -6Q8 0 5 6M5 0H${l / 2}` }];
    case 'source':
      return [
        { d: `M${-l / 2 + 6} ${-b / 2}V${b / 2}M${-l / 2} 0H${-l / 2 + 6}M${l / 2 - 6} -8V8M${l / 2 - 6} 0H${l / 2}` },
        { d: `M${-l / 2 - 2} ${-b / 2 + 4}h6M${-l / 2 + 1} ${-b / 2 + 1}v6` },
      ];
    case 'fan':
      return [{ d: circle(0, 0, l / 2) }, { d: 'M0 0C-9 -9 -3 -13 0 -9C3 -5 0 0 0 0ZM0 0C9 9 3 13 0 9C-3 5 0 0 0 0Z' }];
    case 'transistor':
      return [
        { d: circle(0, 0, l / 2) },
        { d: `M${-l / 2} 0H-4M-4 -8V8M-4 -3.5L8 -12.6V-15M-4 3.5L8 12.6V15` },
        // The arrow at the emitter: out of an NPN, into a PNP.
        { d: negative ? 'M-3.4 4L3.4 5.2L-0.4 10Z' : 'M7.4 12.2L0.6 10.8L4.4 6.2Z', solid: true },
      ];
    case 'regulator':
    case 'control':
      return [{ d: box(l, b) }];
    case 'inlet':
      return [{ d: box(l, b) }, ...pins.map((p) => ({ d: `M4 ${p.y}H${l / 2}`, solid: false }))];
    case 'switch': {
      const pole = (y: number) => `M${-l / 2} ${y}H-9M9 ${y}H${l / 2}M-9 ${y}L8 ${y - 9}`;
      const ys = mirrored ? [-(b - 16) / 2, (b - 16) / 2] : [0];
      return [
        ...ys.map((y) => ({ d: pole(y) })),
        ...(mirrored ? [{ d: `M0 ${ys[0]! - 4}V${ys[1]! - 5}`, dashed: true }] : []),
      ];
    }
    case 'terminal':
      return [{ d: circle(0, 0, l / 2) }];
    case 'test-point':
      return [{ d: circle(0, 0, l / 2) }, { d: circle(0, 0, 1.6), solid: true }];
    case 'flag':
      return [{ d: `M${l / 2} 0L0 ${-b / 2}L${-l / 2} 0L0 ${b / 2}Z` }];
    case 'earth':
      return [{ d: `M${-l / 2} 0H-2M-2 -9V9M2 -6V6M6 -3V3` }];
  }
}

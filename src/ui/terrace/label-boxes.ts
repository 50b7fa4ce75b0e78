import type { Placed } from './settle-labels';

/** What a label measures around its own point, px: found out once for each pattern, asking the page costs it a layout. */
interface Size {
  width: number;
  /** From the point of its text up to its box. */
  rise: number;
  height: number;
}

const sizes = new Map<string, Size>();
/** Patterns kept before all are forgotten. */
const MOST = 400;

/** Digits are all as wide as each other: what two labels differ in by digits alone is one size. */
function patternOf(tag: SVGTextElement): string {
  return [tag.getAttribute('font-size'), tag.getAttribute('font-weight'), tag.textContent!.replace(/\d/g, '0')].join(
    ' ',
  );
}

function sizeOf(tag: SVGTextElement): Size {
  const pattern = patternOf(tag);
  const known = sizes.get(pattern);
  if (known) return known;
  const box = tag.getBBox();
  const found = { width: box.width, rise: Number(tag.getAttribute('y')) - box.y, height: box.height };
  // Until the letters are there all is measured in others.
  if (document.fonts.status === 'loaded') {
    if (sizes.size >= MOST) sizes.clear();
    sizes.set(pattern, found);
  }
  return found;
}

/** Where a label was put and how large it is, wherever it has been moved to since. */
export function placedAt(tag: SVGTextElement): Placed {
  const { width, rise, height } = sizeOf(tag);
  const x = Number(tag.getAttribute('x'));
  const anchor = tag.getAttribute('text-anchor');
  const left = anchor === 'end' ? x - width : anchor === 'middle' ? x - width / 2 : x;
  return {
    x: left,
    y: Number(tag.getAttribute('y')) - rise + 2,
    width,
    height: height - 4,
    rank: Number(tag.dataset['tag']),
  };
}

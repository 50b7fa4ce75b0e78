/** Letters the printing font has a shape for: Latin, Greek, Cyrillic, and the signs of this program. */
const SHAPED =
  /[\u0020-\u007e\u00a0-\u017f\u0192\u0384-\u038a\u038c\u038e-\u03a1\u03a3-\u03ce\u0400-\u0486\u0488-\u0513\u1ea0-\u1ef9\u2010-\u2011\u2013-\u2015\u2018-\u201e\u2020-\u2022\u2026\u2030\u2032-\u2033\u2039-\u203a\u2074-\u208e\u20ac\u2126\u215b-\u215e\u2202\u2206\u2211-\u2212\u221a\u221e\u2248\u2260\u2264-\u2265\n]/u;
/** Stands for a letter without one. */
export const NO_SHAPE = '■';
const INSTEAD: Readonly<Record<string, string>> = {
  '→': 'to',
  '⌀': 'dia ',
  '⚠': '!',
  '✕': 'x',
  '\u202f': ' ',
  '\u2009': ' ',
};

/** A text in letters the printing font has; what it has not is a square, never left out. */
export const printed = (text: string): string =>
  Array.from(text.normalize('NFC'), (letter) => INSTEAD[letter] ?? (SHAPED.test(letter) ? letter : NO_SHAPE)).join('');

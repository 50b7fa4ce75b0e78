import localFont from 'next/font/local';

/*
 * The house's type ships with it. What a page is read in is there before the page is drawn, or not for that page at all:
 * no line breaks anew while somebody reads it, and headings are not first laid out in the machine's own type, which has to be
 * asked for size by size. Greek headings and the rest of Latin come when they are met.
 */

const sansLatin = localFont({
  src: '../../node_modules/@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2',
  weight: '200 900',
  variable: '--sans-latin',
  display: 'optional',
  preload: true,
  adjustFontFallback: false,
  declarations: [
    {
      prop: 'unicode-range',
      value:
        'U+0000-00FF,U+0131,U+0152-0153,U+02BB-02BC,U+02C6,U+02DA,U+02DC,U+2000-206F,U+20AC,U+2122,U+2191,U+2193,U+2212,U+2215,U+FEFF,U+FFFD',
    },
  ],
});

const sansLatinExt = localFont({
  src: '../../node_modules/@fontsource-variable/source-sans-3/files/source-sans-3-latin-ext-wght-normal.woff2',
  weight: '200 900',
  variable: '--sans-latin-ext',
  display: 'swap',
  preload: false,
  adjustFontFallback: false,
  declarations: [
    {
      prop: 'unicode-range',
      value:
        'U+0100-02BA,U+02BD-02C5,U+02C7-02CC,U+02CE-02D7,U+02DD-02FF,U+0304,U+0308,U+0329,U+1D00-1DBF,U+1E00-1E9F,U+1EF2-1EFF,U+2020,U+20A0-20AB,U+20AD-20C4,U+2113,U+2C60-2C7F,U+A720-A7FF',
    },
  ],
});

const sansGreek = localFont({
  src: '../../node_modules/@fontsource-variable/source-sans-3/files/source-sans-3-greek-wght-normal.woff2',
  weight: '200 900',
  variable: '--sans-greek',
  display: 'optional',
  preload: true,
  adjustFontFallback: false,
  declarations: [
    { prop: 'unicode-range', value: 'U+0370-0377,U+037A-037F,U+0384-038A,U+038C,U+038E-03A1,U+03A3-03FF' },
  ],
});

const serifLatin = localFont({
  src: '../../node_modules/@fontsource-variable/source-serif-4/files/source-serif-4-latin-wght-normal.woff2',
  weight: '200 900',
  variable: '--serif-latin',
  display: 'optional',
  preload: true,
  adjustFontFallback: false,
  declarations: [
    {
      prop: 'unicode-range',
      value:
        'U+0000-00FF,U+0131,U+0152-0153,U+02BB-02BC,U+02C6,U+02DA,U+02DC,U+2000-206F,U+20AC,U+2122,U+2191,U+2193,U+2212,U+2215,U+FEFF,U+FFFD',
    },
  ],
});

const serifLatinExt = localFont({
  src: '../../node_modules/@fontsource-variable/source-serif-4/files/source-serif-4-latin-ext-wght-normal.woff2',
  weight: '200 900',
  variable: '--serif-latin-ext',
  display: 'swap',
  preload: false,
  adjustFontFallback: false,
  declarations: [
    {
      prop: 'unicode-range',
      value:
        'U+0100-02BA,U+02BD-02C5,U+02C7-02CC,U+02CE-02D7,U+02DD-02FF,U+0304,U+0308,U+0329,U+1D00-1DBF,U+1E00-1E9F,U+1EF2-1EFF,U+2020,U+20A0-20AB,U+20AD-20C4,U+2113,U+2C60-2C7F,U+A720-A7FF',
    },
  ],
});

const serifGreek = localFont({
  src: '../../node_modules/@fontsource-variable/source-serif-4/files/source-serif-4-greek-wght-normal.woff2',
  weight: '200 900',
  variable: '--serif-greek',
  display: 'swap',
  preload: false,
  adjustFontFallback: false,
  declarations: [
    { prop: 'unicode-range', value: 'U+0370-0377,U+037A-037F,U+0384-038A,U+038C,U+038E-03A1,U+03A3-03FF' },
  ],
});

/** Classes that give a page its typefaces. */
export const FONTS = [sansLatin, sansLatinExt, sansGreek, serifLatin, serifLatinExt, serifGreek]
  .map((f) => f.variable)
  .join(' ');

import path from 'node:path';

/** Where a program that runs beside the server lies, once scripts/build.mjs has bundled it. */
export const bundledFile = (name: string): string =>
  path.join(/* turbopackIgnore: true */ process.cwd(), 'node_modules/.cache/ember-rail', `${name}.mjs`);

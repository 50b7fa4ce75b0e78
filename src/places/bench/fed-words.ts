import type { LoadRow } from '@/core/design/design';

/** What fed a supply, as the person says it. */
export const FED_WORDS: Readonly<Record<LoadRow['fedFrom'], string>> = {
  mains: 'mains',
  variable: 'variable',
  lamp: 'series lamp',
  'bench supply': 'bench supply',
};

/** Said of a reading that is not held against its window. */
export const FED_THROUGH: Readonly<Record<LoadRow['fedFrom'], string>> = {
  mains: 'at the mains',
  variable: 'at a variable source',
  lamp: 'through a series lamp',
  'bench supply': 'at a bench supply',
};

/** What to mind, by what feeds it. */
export const FED_ADVICE: Readonly<Record<LoadRow['fedFrom'], string>> = {
  mains: 'A dead short shows as a fuse that goes: a series lamp first is kinder.',
  variable: 'Read its own volts as the mains; turned up slowly, the reservoir forms and a fault shows early.',
  lamp: 'It flashes and goes dark: good. It stays bright: switch off and look for a short. Readings are kept, not judged.',
  'bench supply': 'For the half behind the rectifier: current limit just above what it should draw.',
};

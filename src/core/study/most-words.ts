import type { Most } from './most';

/** The words of it: '1.42 A at low line, where it drops out'. */
export function mostWords({ amps, because }: Most, low: string, format: (amps: number) => string): string {
  if (amps === null) return `nothing at ${low}: it ${because} with any load`;
  return because === 'holds' ? `more than ${format(amps)} at ${low}` : `${format(amps)} at ${low}, where it ${because}`;
}

import type { LoadRow } from '@/core/design/design';

/** What is wrong with a row as a whole, as a sentence; null when nothing is. */
export function rowFault({ reservoirV, rippleV, outputV, sinkC }: LoadRow): string | null {
  if (reservoirV === null && rippleV === null && outputV === null && sinkC === null)
    return 'nothing was read: type at least one of reservoir, ripple, output or metal';
  if (rippleV !== null && reservoirV !== null && rippleV > 2 * reservoirV)
    return 'a ripple of more than twice the volts it lies on: was it read in millivolts?';
  return null;
}

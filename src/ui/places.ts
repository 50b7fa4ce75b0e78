import type { Design } from '@/core/design/design';

/** Where one can go in a design, in the order of work: name and what follows the design's address. */
export function placesOf({ source }: Pick<Design, 'source'>): readonly (readonly [name: string, path: string])[] {
  return [
    ['Load', '/load'],
    ['Supply', ''],
    ['Scope', '/scope'],
    ['Heat', '/heat'],
    ['Worst case', '/worst'],
    ['Parts', '/parts'],
    [source.kind === 'mains' ? 'Mains side' : 'Source side', '/mains'],
    ['Bench', '/bench'],
    ['Sheet', '/sheet'],
  ];
}

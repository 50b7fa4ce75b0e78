import type { Figure } from '@/core/study/figure';
import type { Inside, PlacedBlock } from './block';
import { mid, solidOf } from './solid';

/** Both ends of a wire: a bend behind each tab, and what is stripped or cut off, mm. Rule of thumb. */
const ENDS_MM = 60;
/** The chassis' own screw of the earth is beside the inlet, mm. */
const CHASSIS_MM = 40;

/**
 * How long a wire between two parts of a box is: along its walls from middle to middle, with its ends.
 * @returns a function of the two parts' references; 'board' for the board; null where one of them is not in the box
 */
export function wireLengths(
  placed: readonly PlacedBlock[],
  inside: Inside,
): (from: string, to: string) => Figure | null {
  const at = new Map(
    placed.map(({ block, spot }) => {
      const { x, y, z } = solidOf(block, spot, inside);
      return [block.id, { x: mid(x), y: mid(y), z: mid(z) }];
    }),
  );
  return (from, to) => {
    const a = at.get(from);
    const b = at.get(to);
    const apart =
      to === 'chassis' ? CHASSIS_MM : a && b ? Math.abs(a.x - b.x) + Math.abs(a.y - b.y) + Math.abs(a.z - b.z) : null;
    if (!a || apart === null) return null;
    return {
      id: `${from}-${to}-length`,
      label: 'Length',
      value: Math.round(apart + ENDS_MM),
      unit: 'mm',
      origin: 'rule of thumb',
      expression: 'along the walls from middle to middle + ends',
      inputs: [
        { label: 'along the walls', value: Math.round(apart), unit: 'mm', origin: 'formula' },
        { label: 'ends', value: ENDS_MM, unit: 'mm', origin: 'rule of thumb' },
      ],
      source: 'Where both parts stand in the box.',
      assumes: ['Wires follow floor and walls and are tied there. Lay one before you cut ten.'],
    };
  };
}

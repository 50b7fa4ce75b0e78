import { arrangementFacts } from '@/core/design/source';
import { applyPatch, type Design } from '@/core/design/design';
import { withFilterShape, type FilterShape } from '@/core/design/filters';

/** One of the ways builders feed a filter, on one design's own values. */
export interface School {
  shape: FilterShape;
  name: string;
  creed: string;
  design: Design;
}

const SCHOOLS: readonly Omit<School, 'design'>[] = [
  {
    shape: 'plain',
    name: 'Capacitor input',
    creed: 'High, forgiving volts and peaky current: what beginners are told to build.',
  },
  {
    shape: 'small-first',
    name: 'Small first capacitor',
    creed: 'A film capacitor ahead of the choke sets the volts anywhere between the other two.',
  },
  {
    shape: 'choke-input',
    name: 'Choke input',
    creed: 'Soft current and steady volts above the critical current; every ohm and volt shows.',
  },
];

/**
 * The three schools of feeding a reservoir on this design's own transformer, load and reservoir. Empty for a doubler,
 * which has to start with its capacitors.
 */
export function schools(design: Design): School[] {
  if (arrangementFacts(design).ownCans) return [];
  return SCHOOLS.map((school) => ({
    ...school,
    design: applyPatch({ ...design, filter: { ...design.filter, after: [] } }, withFilterShape(design, school.shape)),
  }));
}

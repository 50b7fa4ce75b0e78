import type { Design } from '@/core/design/design';

export type RoomId =
  | 'load'
  | 'hum'
  | 'supply'
  | 'scope'
  | 'heat'
  | 'worst'
  | 'pick'
  | 'sets'
  | 'transformer'
  | 'reservoir'
  | 'bill'
  | 'drawer'
  | 'mains'
  | 'circuit'
  | 'wiring'
  | 'assembly'
  | 'board'
  | 'box'
  | 'checklist'
  | 'bench'
  | 'line'
  | 'faults'
  | 'practice'
  | 'instruments'
  | 'sheet'
  | 'log'
  | 'revisions';

/** One view of a design, with an address of its own. */
export interface Room {
  id: RoomId;
  name: string;
}

/** One of the places of the work, in their order, with the rooms this design has in it. */
export interface Place {
  name: string;
  rooms: readonly Room[];
}

/** The places of a design in the order of work. A DC source has no transformer to choose. */
export function placesOf({ source }: Pick<Design, 'source'>): readonly Place[] {
  const mains = source.kind === 'mains';
  return [
    {
      name: 'Need',
      rooms: [
        { id: 'load', name: 'Load' },
        { id: 'hum', name: 'Hum' },
      ],
    },
    {
      name: 'Design',
      rooms: [
        { id: 'supply', name: 'Supply' },
        { id: 'scope', name: 'Scope' },
        { id: 'heat', name: 'Heat' },
        { id: 'worst', name: 'Worst case' },
      ],
    },
    {
      name: 'Buy',
      rooms: [
        { id: 'pick', name: 'Pick' },
        ...(mains ? ([{ id: 'sets', name: 'Whole sets' }] as const) : []),
        ...(mains ? ([{ id: 'transformer', name: 'Transformer' }] as const) : []),
        { id: 'reservoir', name: 'Reservoir' },
        { id: 'mains', name: mains ? 'Mains side' : 'Source side' },
        { id: 'bill', name: 'Bill' },
        { id: 'drawer', name: 'Drawer' },
      ],
    },
    {
      name: 'Build',
      rooms: [
        { id: 'circuit', name: 'Circuit' },
        { id: 'wiring', name: 'Wiring' },
        { id: 'board', name: 'Board' },
        { id: 'box', name: 'Box' },
        { id: 'assembly', name: 'Assembly' },
        { id: 'checklist', name: mains ? 'Before the plug' : 'Before it is joined' },
      ],
    },
    {
      name: 'Bench',
      rooms: [
        { id: 'bench', name: 'Power-up' },
        { id: 'line', name: 'Load line and fit' },
        { id: 'faults', name: 'Faults' },
        { id: 'practice', name: 'Practice' },
        { id: 'instruments', name: 'Instruments' },
      ],
    },
    {
      name: 'Keep',
      rooms: [
        { id: 'sheet', name: 'Sheet' },
        { id: 'log', name: 'Log' },
        { id: 'revisions', name: 'Revisions' },
      ],
    },
  ];
}

/** Address of a room of a design. */
export function roomPath(design: string, room: RoomId): string {
  return `/design/${design}${room === 'supply' ? '' : `/${room}`}`;
}

/** The room an address leads to. */
export function roomAt(path: string, design: string): RoomId {
  const rest = path.slice(`/design/${design}`.length).replace(/^\/|\/$/g, '');
  return (rest === '' ? 'supply' : rest) as RoomId;
}

'use client';

import { useMemo } from 'react';
import { hazardousNets } from '@/core/build/hazardous-nets';
import { netlistOf } from '@/core/netlist/netlist-of';
import { useView } from './session';

/** What is known before anything is solved. */
const MAINS: ReadonlySet<string> = new Set(['L', 'N']);

/** Nets of the design at hand, as it was last solved, that nobody touches while it is live. */
export function useHazardousNets(): ReadonlySet<string> {
  const picture = useView((s) => s.picture);
  return useMemo(
    () => (picture ? hazardousNets(picture.design, netlistOf(picture.design), picture.points.idle) : MAINS),
    [picture],
  );
}

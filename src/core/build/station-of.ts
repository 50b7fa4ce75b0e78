import type { NetPart } from '@/core/netlist/netlist';
import type { StationId } from '@/core/picture/station';

/** At which station of the terrace a part stands. */
export function stationOf({ block, line }: Pick<NetPart, 'block' | 'line'>): StationId {
  if (line === 'reservoir' || line === 'bleeder' || line === 'balance') return 'reservoir';
  if (line.startsWith('before')) return 'before';
  if (line.startsWith('after')) return 'after';
  switch (block) {
    case 'mains':
      return 'mains';
    case 'transformer':
      return 'winding';
    case 'rectifier':
      return line === 'secondary-fuse' ? 'winding' : 'rectifier';
    case 'filter':
      return 'reservoir';
    case 'ahead':
    case 'regulator':
      return 'regulator';
    case 'output':
      return 'load';
  }
}

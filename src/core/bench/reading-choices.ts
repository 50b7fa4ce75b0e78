import type { BenchFault } from './fault-words';
import type { Quantity } from './measured';

/** What a powered reading is of: a place of the circuit, or what comes out behind it. */
export type PoweredQuantity = Quantity | 'output';
export type UnpoweredId = 'fuse' | 'diodes' | 'reservoir' | 'path' | 'through' | 'setting';

/** What may still be read with power on, and the minutes it costs. */
export const POWERED: readonly {
  id: string;
  label: string;
  quantity: PoweredQuantity;
  load: 'bare' | 'open' | number;
  minutes: number;
}[] = [
  { id: 'secondary-open', label: 'the winding, open', quantity: 'winding', load: 'open', minutes: 6 },
  { id: 'reservoir-idle', label: 'the reservoir without load', quantity: 'reservoir', load: 'bare', minutes: 3 },
  { id: 'reservoir-loaded', label: 'the reservoir at full load', quantity: 'reservoir', load: 1, minutes: 4 },
  { id: 'reservoir-ripple', label: 'the ripple at full load', quantity: 'ripple', load: 1, minutes: 5 },
  { id: 'output-idle', label: 'the output without load', quantity: 'output', load: 0, minutes: 3 },
  { id: 'output-loaded', label: 'the output at full load', quantity: 'output', load: 1, minutes: 3 },
];

/** Checks without power: which faults each tells from all others, and how surely. */
export const UNPOWERED: readonly { id: UnpoweredId; label: string; minutes: number; shows: readonly BenchFault[] }[] = [
  {
    id: 'fuse',
    label: 'ohms of the fuse and across the plug’s pins, unplugged',
    minutes: 3,
    shows: ['source-dead'],
  },
  {
    id: 'diodes',
    label: 'diode range across each diode, unplugged and discharged',
    minutes: 4,
    shows: ['diode-open', 'diode-short'],
  },
  {
    id: 'reservoir',
    label: 'capacitance or ESR of the reservoir, one lead off',
    minutes: 6,
    shows: ['reservoir-dry', 'reservoir-open'],
  },
  {
    id: 'path',
    label: 'ohms along the charging path, unplugged and discharged',
    minutes: 4,
    shows: ['source-weak', 'path-open', 'winding-open'],
  },
  { id: 'through', label: 'ohms from the regulator’s input to its output', minutes: 3, shows: ['output-through'] },
  { id: 'setting', label: 'ohms from the setting pin to ground', minutes: 3, shows: ['output-top', 'output-bottom'] },
];

/** How often a check without power says what is so. Rule of thumb. */
export const RELIABLE = 0.96;

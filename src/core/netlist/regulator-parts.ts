import type { WiredKind, WiredPart } from '@/core/parts/regulators/model';
import { formatNominal } from '@/core/quantity/format';
import type { NetlistBuilder, Place } from './builder';
import { GROUND, type PartKind } from './netlist';

const KINDS: Readonly<Record<WiredKind, PartKind>> = {
  regulator: 'regulator',
  transistor: 'transistor',
  diode: 'diode',
  zener: 'zener',
  resistor: 'resistor',
  pot: 'pot',
  capacitor: 'capacitor',
  electrolytic: 'electrolytic',
  control: 'control',
};

/** Pins that change places in what works below ground. */
const SWAPPED: Readonly<Record<string, string>> = { anode: 'cathode', cathode: 'anode', plus: 'minus', minus: 'plus' };

/**
 * A regulator's parts, joined between its input and its output.
 * @param io the nets it is joined to: 'in', 'out', and what it follows
 * @param own begins the names of the nets it has for itself
 * @param line begins the names of its lines on the bill
 */
export function regulatorParts(
  wired: readonly WiredPart[],
  io: Readonly<Record<string, string>>,
  own: string,
  line: string,
  place: Place,
  b: NetlistBuilder,
): void {
  const negative = place.rail === 1;
  for (const part of wired) {
    for (let n = 1; n <= (part.times ?? 1); n++) {
      const net = (local: string) => {
        if (local === 'ground') return GROUND;
        const alike = local.replace('#', '');
        return (
          io[local] ??
          b.net(`${own} ${local.replace('#', ` ${n}`)}`, 'inside', place.rail, {
            local: alike,
            ...(alike === local ? {} : { alike: `${own} ${alike}` }),
          })
        );
      };
      const value = negative ? (part.twinValue ?? part.value) : part.value;
      const pins = Object.fromEntries(
        Object.entries(part.pins).map(([pin, local]) => [negative ? (SWAPPED[pin] ?? pin) : pin, net(local)]),
      );
      const name = part.name && negative ? twinName(part) : part.name;
      b.add(
        {
          kind: part.kind === 'capacitor' && value! >= 1e-6 ? 'electrolytic' : KINDS[part.kind],
          value: name ?? (value === null ? 'to be chosen' : formatNominal(Number(value.toPrecision(3)), part.unit)),
          what: part.what,
          pins,
          line: `${line}:${part.billed ?? 'device'}`,
          si: value === null ? null : { value, unit: part.unit },
          negative,
          ...(part.carriesLoad ? { carriesLoad: true } : {}),
        },
        place,
      );
    }
  }
}

/** What the part for below ground is called. */
function twinName({ kind, name }: WiredPart): string {
  if (kind === 'regulator') return /^78/.test(name!) ? name!.replace(/^78/, '79') : name!.replace(/^317/, '337');
  if (kind === 'transistor') return name === 'small NPN' ? 'small PNP' : `${name}’s PNP twin`;
  return name!;
}

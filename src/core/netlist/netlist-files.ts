import Papa from 'papaparse';
import { harmless } from '@/core/drawer/csv';
import type { Netlist } from './netlist';

/** One row a pin: which part, which of its pins, on which net. RFC 4180. */
export function netlistCsv({ parts, nets }: Netlist): string {
  const roles = new Map(nets.map((n) => [n.name, n.role]));
  return Papa.unparse(
    [
      ['reference', 'value', 'rating', 'for', 'pin', 'net', 'net is'],
      ...parts.flatMap((p) =>
        p.pins.map((pin) => [p.ref, p.value, p.rating, p.what, pin.name, pin.net, roles.get(pin.net) ?? '']),
      ),
    ].map((row) => row.map(harmless)),
    { newline: '\r\n' },
  );
}

/** The netlist for a program to read: parts with their pins, nets, test points. */
export function netlistJson({ parts, nets, tests }: Netlist): string {
  return `${JSON.stringify(
    {
      format: 'ember-rail-netlist',
      version: 1,
      parts: parts.map(({ ref, kind, value, rating, what, pins }) => ({
        ref,
        kind,
        value,
        rating,
        what,
        pins: Object.fromEntries(pins.map((p) => [p.name, p.net])),
      })),
      nets: nets.map(({ name, role }) => ({ name, role, pins: pinsOn(parts, name) })),
      testPoints: tests,
    },
    null,
    2,
  )}\n`;
}

const pinsOn = (parts: Netlist['parts'], net: string) =>
  parts.flatMap((p) => p.pins.filter((pin) => pin.net === net).map((pin) => `${p.ref} ${pin.name}`));

import type { Circuit } from '@/core/circuit/assemble';

/** Whether two circuits differ in nothing but values. */
export function sameShape(a: Circuit, b: Circuit): boolean {
  return (
    a.states === b.states &&
    a.nodes === b.nodes &&
    a.floats === b.floats &&
    a.inductive === b.inductive &&
    alike(a.acPorts, b.acPorts, (p, q) => p === q) &&
    alike(a.inputs, b.inputs, (p, q) => p.plus === q.plus && p.minus === q.minus) &&
    alike(a.windings, b.windings, (p, q) => p.state === q.state) &&
    alike(
      a.ports,
      b.ports,
      (p, q) =>
        p.winding === q.winding &&
        p.share === q.share &&
        alike(p.into, q.into, (a, b) => a.input === b.input && a.sign === b.sign) &&
        p.floating === q.floating &&
        p.floatSign === q.floatSign &&
        p.law === q.law,
    ) &&
    alike(a.elements, b.elements, (p, q) => {
      if (p.kind === 'capacitor') {
        return q.kind === 'capacitor' && p.plus === q.plus && p.minus === q.minus && p.state === q.state;
      }
      if (q.kind === 'capacitor' || p.from !== q.from || p.to !== q.to) return false;
      if (p.kind === 'resistor') return q.kind === 'resistor';
      return q.kind === 'inductor' && p.state === q.state && (p.halfAtA === Infinity) === (q.halfAtA === Infinity);
    }) &&
    alike(
      a.rails,
      b.rails,
      (p, q) =>
        p.outputNode === q.outputNode &&
        p.load.breakpoints.length === q.load.breakpoints.length &&
        (p.load.extra === null) === (q.load.extra === null),
    )
  );
}

function alike<T>(a: readonly T[], b: readonly T[], same: (p: T, q: T) => boolean): boolean {
  if (a.length !== b.length) return false;
  for (let n = 0; n < a.length; n++) if (!same(a[n]!, b[n]!)) return false;
  return true;
}

import type { Netlist } from '@/core/netlist/netlist';
import { formatQuantity } from '@/core/quantity/format';
import type { TestPoint } from './test-point';

/** What each test point of a circuit should read, in words, by its reference: under load where it is read so, what the probe shows on the day it matters. */
export function saidVolts(
  { tests }: Pick<Netlist, 'tests'>,
  points: readonly Pick<TestPoint, 'id' | 'expected'>[],
): Map<string, string> {
  const expected = new Map(points.map((p) => [p.id as string, p.expected]));
  return new Map(
    tests.flatMap((t) => {
      const at = ['reservoir-loaded', 'output-loaded', ...t.points].find(
        (p) => t.points.includes(p) && expected.has(p),
      );
      const figure = at === undefined ? undefined : expected.get(at);
      return figure ? [[t.ref, formatQuantity(figure.value, figure.unit)] as const] : [];
    }),
  );
}

/** The same by the net a test point is on. */
export const byNet = ({ tests }: Pick<Netlist, 'tests'>, said: ReadonlyMap<string, string>): Map<string, string> =>
  new Map(tests.flatMap((t) => (said.has(t.ref) ? [[t.net, said.get(t.ref)!] as const] : [])));

import { demoDesigns } from '@/core/design/demo-designs';
import { readRepaired } from '@/core/design/repaired';

type Loose = Record<string, Record<string, unknown>>;
const fresh = () => JSON.parse(JSON.stringify(demoDesigns()[0])) as Loose;
const spoiled = (spoil: (d: Loose) => void) => {
  const document = fresh();
  spoil(document);
  return readRepaired(document);
};

test('a sound design comes through as it is, also one level down in what the server answers', () => {
  expect(readRepaired(fresh())).toEqual({ ok: true, design: demoDesigns()[0], repairs: [] });
  expect(readRepaired({ id: 'x', revision: 3, design: fresh() })).toMatchObject({ ok: true, repairs: [] });
});

test.each<[string, (d: Loose) => void, string[]]>([
  ['a member at the top', (d) => (d['colour'] = 'green' as never), ['colour is nothing a design has: left out.']],
  [
    'a member no design has',
    (d) => (d['mains']!['colour'] = 'green'),
    ['mains.colour is nothing a design has: left out.'],
  ],
  [
    'a number written as text',
    (d) => (d['demand']!['outputV'] = '24,0'),
    ['demand.outputV was written as text: taken as 24.'],
  ],
  ['records that are missing', (d) => delete (d as Partial<Loose>)['log'], ['log was missing: as in a new design.']],
  [
    'a value that may be left open',
    (d) => delete d['reservoir']!['esrOhm'],
    ['reservoir.esrOhm was missing: left to what is typical.'],
  ],
  [
    'a reading that is none, and one after it that is none either',
    (d) => {
      const readings = d['bench']!['readings'] as Loose[];
      readings[2]!['value'] = 'many' as never;
      readings[5]!['at'] = 'noon' as never;
    },
    ['bench.readings[2] could not be read', 'bench.readings[4] could not be read'],
  ],
])('%s is mended, and said', (_, spoil, said) => {
  const read = spoiled(spoil);
  if (!read.ok) throw new Error(`${read.fault.path}: ${read.fault.sentence}`);
  expect(read.repairs).toHaveLength(said.length);
  read.repairs.forEach((r, n) => expect(r).toContain(said[n]!));
});

test('what is mended is all that differs: the readings beside the bad one stay, in their order', () => {
  const read = spoiled((d) => ((d['bench']!['readings'] as Loose[])[0]!['value'] = null as never));
  if (!read.ok) throw new Error(read.fault.sentence);
  const sound = demoDesigns()[0]!;
  expect(read.design).toEqual({ ...sound, bench: { ...sound.bench, readings: sound.bench.readings.slice(1) } });
});

test.each<[string, (d: Loose) => void, string]>([
  ['a farad too many', (d) => (d['reservoir']!['capacitanceF'] = 1e9), 'reservoir.capacitanceF'],
  ['no winding at all', (d) => delete d['transformer']!['ratedV'], 'transformer.ratedV'],
  ['a word for a number', (d) => (d['transformer']!['ratedVA'] = 'large'), 'transformer.ratedVA'],
  [
    'a regulator nobody makes',
    (d) => (d['regulator'] = { kind: 'fixed', size: '78S', outputV: 5.1 }),
    'regulator.outputV',
  ],
  ['a further output without its load', (d) => (d['outputs'] = [{}] as never), 'outputs[0]'],
  ['a name that is a number', (d) => ((d as Record<string, unknown>)['name'] = 7), 'name'],
])('%s is not mended: no figure of the circuit is invented', (_, spoil, path) => {
  const read = spoiled(spoil);
  expect(read.ok ? read.repairs : read.fault.path).toContain(path);
});

test('another program’s file is told by its first fault', () => {
  expect(readRepaired({ cells: [] })).toMatchObject({ ok: false, fault: { path: 'format' } });
  expect(readRepaired([1])).toMatchObject({ ok: false });
  expect(readRepaired('x')).toMatchObject({ ok: false });
});

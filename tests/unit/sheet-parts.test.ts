import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { mainsForReadings } from '@/core/bench/readings';
import { stagesOf } from '@/core/bench/stages';
import { testPoints } from '@/core/bench/test-points';
import { pictureOf } from '@/core/judge/picture';
import { cautions } from '@/core/sheet/cautions';
import { report, type Report } from '@/core/sheet/report';
import type { Most } from '@/core/study/most';
import { clock, dome, drum, tide, physics, first, logger } from '../support/demos';

const sheet = (d: Design, patch: Patch = {}, most: readonly Most[] = []): Report => {
  const design = applyPatch(d, patch);
  return report(pictureOf(design).picture, [], most);
};
const part = (r: Report, station: string) => {
  const found = r.parts.find((p) => p.station === station);
  if (!found) throw new Error(`no ${station} among ${r.parts.map((p) => p.station).join(', ')}`);
  return found;
};
const plate = (r: Report, key: string) => r.plate.find(([k]) => k === key)?.[1];

test('the plate says what goes in, what comes out, and what its winding bears', () => {
  const r = sheet(clock);
  expect(plate(r, 'Input')).toBe('230 V 50 Hz, 207 V to 253 V');
  expect(plate(r, 'Output')).toBe('24 V DC, 1.2 A');
  expect(plate(r, 'Stays within')).toMatch(/^23\.0 V to 25\.0 V$/);
  // 24 V times 1.2 A.
  expect(plate(r, 'Takes from the winding')).toMatch(/^43\.\d W, gives 28\.8 W$/);
  expect(plate(r, 'Lasts')).toBeUndefined();
  expect(part(r, 'Transformer')).toMatchObject({ what: '24 V, 100 VA' });
  // 24 V and 9 %; 100 VA over 24 V.
  expect(part(r, 'Transformer').detail).toMatch(/^regulation 9 %, open 26\.2 V, rated 4\.17 A, carries 2\.\d+ A RMS$/);
  expect(part(sheet(clock, { transformer: { regulationPct: null } }), 'Transformer').detail).toMatch(/% \(typical\)/);
});

test('an anode winding carries what it carries: its heater winding has wire, and a line, of its own', () => {
  const r = part(sheet(tide), 'Transformer');
  expect(r.what).toBe('2 × 205 V, 60 VA');
  // 60 VA over both halves of 205 V.
  expect(r.detail).toMatch(/rated 146 mA, carries (\d+\.?\d*) mA RMS; heater winding 6\.3 V, 1\.8 A$/);
  // Choke input: each half carries the load for half the time, 1/√2 of it: 45 mA and the bleeder's 18.
  const carried = Number(/carries ([\d.]+) mA/.exec(r.detail)![1]);
  expect(carried).toBeGreaterThan(0.95 * (63 / Math.SQRT2));
  expect(carried).toBeLessThan(1.2 * (63 / Math.SQRT2));
  expect(part(sheet(clock), 'Transformer').detail).not.toMatch(/heater/);
});

test('each output is on the plate, with its knob’s range where it has one', () => {
  expect(sheet(drum).plate.filter(([, v]) => / DC, /.test(v))).toEqual([
    ['Output', '18 V DC, 250 mA'],
    ['−18 V', '18 V DC, 180 mA'],
  ]);
  expect(plate(sheet(physics), 'Output')).toBe('0 V to 25.0 V DC, 1.5 A');
  expect(plate(sheet(logger), 'Radio')).toBe('8 V DC, 50 mA');
});

test('what it gives at most is on the plate, output by output where there are several', () => {
  const most = (name: string, amps: number | null = 1.87): Most => ({ id: 'main', name, amps, because: 'drops out' });
  const one = sheet(clock, {}, [most('output')]);
  expect(plate(one, 'Most it gives')).toBe('1.87 A at low line, where it drops out');
  expect(plate(sheet(clock, {}, [most('output', null)]), 'Most it gives')).toMatch(/^nothing at low line/);
  const two = sheet(drum, {}, [most('+18 V'), most('−18 V')]);
  expect(plate(two, 'Most, +18 V')).toBeDefined();
  expect(plate(two, 'Most, −18 V')).toBeDefined();
  expect(plate(two, 'Most it gives')).toBeUndefined();
});

test('a battery: what it holds, how long it lasts, and its diode', () => {
  const r = sheet(logger);
  expect(plate(r, 'Input')).toBe('12.9 V battery, 11.0 V to 12.9 V open');
  // 7 Ah; 0.12 A for the load, 0.05 for the radio, and a few mA for the regulators themselves.
  const hours = Number(/^([\d.]+) h at its lasting load/.exec(plate(r, 'Lasts')!)![1]);
  expect(hours).toBeGreaterThan(7 / 0.19);
  expect(hours).toBeLessThan(7 / 0.17);
  expect(part(r, 'Battery').detail).toMatch(/^resistance 35\.0 mΩ, carries 2\d\d mA, holds 7 Ah, given up at 11 V$/);
  expect(part(r, 'Reverse diode')).toMatchObject({ what: 'Schottky', detail: 'Schottky 3 A, 40 V (1N5822)' });
  const bare = sheet(logger, { source: { ...logger.source, reverseDiode: false } as Design['source'] });
  expect(part(bare, 'Reverse diode')).toMatchObject({ what: 'none', detail: 'swapped leads reach everything' });
  const adapter = sheet(logger, {
    source: {
      kind: 'adapter',
      ratedV: 12,
      ratedA: 1,
      idlePct: 20,
      spreadPct: 5,
      rippleVpp: 0.1,
      limitA: null,
      reverseDiode: true,
    },
  });
  // 20 % of 12 V over 1 A.
  expect(part(adapter, 'Adapter').detail).toMatch(/^resistance 2\.4\d? ?Ω|^resistance 2\.40 Ω, carries [^,]+$/);
  expect(part(adapter, 'Adapter').detail).not.toMatch(/holds/);
  expect(plate(adapter, 'Lasts')).toBeUndefined();
});

test('rectifier, reservoir and regulator as they are bought', () => {
  const r = sheet(clock);
  expect(part(r, 'Rectifier')).toMatchObject({ what: 'Bridge', detail: 'Silicon 3 A, 400 V (1N5404)' });
  expect(part(r, 'Reservoir').what).toBe('6800 µF, 50 V');
  // 20 % short from new and 20 % by age.
  expect(part(r, 'Reservoir').detail).toMatch(/^ESR [\d.]+ mΩ \(typical\); judged at 4350 µF aged$/);
  expect(part(sheet(clock, { reservoir: { esrOhm: 0.05 } }), 'Reservoir').detail).toMatch(/^ESR 50\.0 mΩ; judged/);
  expect(part(sheet(physics), 'Reservoir').what).toBe('2 × 6800 µF, 63 V');
  expect(part(sheet(dome, { reservoir: { capacitanceF: 0 } }), 'Reservoir')).toMatchObject({
    what: 'none',
    detail: '',
  });
  expect(part(r, 'Regulator')).toMatchObject({
    what: '78S24',
    detail: 'TO-220, its metal is the ground; sink 1.5 K/W, mica and paste',
  });
  expect(part(sheet(clock, { heat: { sinkKPerW: null } }), 'Regulator').detail).toMatch(/; no sink$/);
  expect(part(sheet(logger), 'Regulator').detail).toBe('SOT-223, its metal is the output');
  expect(part(sheet(dome), 'Regulator')).toMatchObject({ what: 'none', detail: 'the reservoir feeds the load' });
});

test('a further output says its headroom at the least of its source, and its junction at the most', () => {
  const r = part(sheet(logger), 'Radio');
  expect(r.what).toBe('78L08, 50 mA');
  expect(r.detail).toMatch(/^headroom 9\d\d mV, 2\d\d mW, junction \d+ °C$/);
  // A tab that takes a sink says which.
  const tab = { ...logger.outputs[0]!, regulator: { kind: 'fixed', size: '78M', outputV: 8 } as const };
  const on = (sinkKPerW: number | null, oneSink = false) =>
    part(sheet(logger, { outputs: [{ ...tab, sinkKPerW }], heat: { oneSink, sinkKPerW: 10 } }), 'Radio').detail;
  expect(on(null)).toMatch(/; no sink$/);
  expect(on(20)).toMatch(/; sink 20 K\/W$/);
  expect(on(20, true)).toMatch(/; on the main sink$/);
  const rail = part(sheet(logger, { outputs: [{ ...tab, regulator: { kind: 'none' } }] }), 'Radio');
  expect(rail.what).toBe('the rail itself, 50 mA');
  expect(rail.detail).toMatch(/^10\.\d V at its lowest$/);
});

describe('small parts', () => {
  const small = (d: Design, patch: Patch = {}) => part(sheet(d, patch), 'Small parts').detail.split('; ');
  test('capacitors and the diode of a fixed regulator, a washer for each tab on metal', () => {
    expect(small(clock, { filter: { bleederOhm: null } })).toEqual([
      'Capacitor, input pin to ground, 0.33 µF',
      'Capacitor, output pin to ground, 0.1 µF',
      'Diode 1N4002, output to input',
      '1 × mica and paste with bushes',
    ]);
    // Both regulators of a split supply have theirs; the list of small parts is for each of them.
    expect(small(drum)).toContain('2 × mica and paste with bushes');
    expect(small(clock, { heat: { interface: 'dry' } }).join()).not.toMatch(/bushes/);
    expect(part(sheet(dome), 'Small parts')).toMatchObject({ what: 'none', detail: '' });
    expect(part(sheet(clock), 'Small parts').what).toBe('');
  });

  test('bleeder, balancing resistors, lamp and fan', () => {
    expect(small(tide)).toEqual(['Bleeder, 10 kΩ']);
    expect(small(dome, { reservoir: { pair: true, balanceOhm: 22000 } })).toEqual([
      'Balancing resistors, 22 kΩ across each can',
    ]);
    expect(small(dome, { indicator: { at: 'rail', currentA: 0.005, forwardV: 2 } })).toEqual([
      'Lamp, 5 mA with its resistor, at the rail',
    ]);
    expect(small(physics).at(-1)).toBe('fan from 60 °C on, fed from elsewhere');
    expect(small(physics, { heat: { fan: 'fixed', fanA: 0.08 } }).at(-1)).toBe('fan, 80 mA from the rail');
    expect(small(first).join()).not.toMatch(/fan/);
  });
});

test('every verdict is a line with its limit and its circumstance; every point a line with what was read', () => {
  const read = applyPatch(clock, {
    bench: {
      readings: [
        { point: 'mains', value: 229, mainsV: 229, fedFrom: 'mains', at: '2026-03-01T20:00:00Z' },
        { point: 'output-idle', value: 26, mainsV: 229, fedFrom: 'mains', at: '2026-03-01T20:01:00Z' },
      ],
    },
  });
  const { picture } = pictureOf(read);
  const points = testPoints(read, mainsForReadings(read));
  const r = report(picture, points);
  expect(r.margins.map((m) => [m.title, m.state])).toEqual(picture.verdicts.map((v) => [v.title, v.state]));
  const window = r.margins.find((m) => m.title === picture.verdicts.find((v) => v.id === 'headroom')!.title)!;
  expect(window.limit).toBe('at least 0 V');
  expect(window.condition).toMatch(/low/);
  // What no stage waits for stands there once it was read.
  const further = new Set(stagesOf(read).flatMap((s) => s.more));
  expect(r.readings.map((p) => p.label)).toEqual(
    points.filter((p) => p.id === 'mains' || !further.has(p.id)).map((p) => p.label),
  );
  const line = (label: string) => r.readings.find((p) => p.label === label);
  expect(line('Mains')).toMatchObject({ read: '229.0 V', judged: 'as expected' });
  expect(line('Output, no load')).toMatchObject({
    stage: 'Regulator',
    expected: '22.8 V to 25.2 V',
    read: '26.00 V at 229 V',
    judged: 'too high',
  });
  expect(line('Output, full load')).toMatchObject({ read: '', judged: '' });
});

describe('cautions of the sheet', () => {
  test('metal that burns, from 60 °C on, by its name', () => {
    expect(cautions(clock, null, 60).join()).not.toMatch(/guard or label/);
    expect(cautions(clock, null, 61).at(-1)).toBe('The heatsink reaches about 61 °C: guard or label it.');
    const bare = applyPatch(clock, { heat: { sinkKPerW: null } });
    expect(cautions(bare, null, 99).at(-1)).toBe('The regulator reaches about 99 °C: guard or label it.');
    // A part that takes no sink has none, whatever the field says.
    const small = applyPatch(clock, { regulator: { kind: 'fixed', size: '78L', outputV: 24 } });
    expect(cautions(small, null, 99).at(-1)).toMatch(/^The regulator/);
    expect(cautions(clock, null, null).join()).not.toMatch(/guard or label/);
  });

  test('direct current has its own: no earth, no mains, but what a battery drives', () => {
    const battery = cautions(logger, null, 40).join(' ');
    expect(battery).toMatch(/fuse close to its terminal/);
    expect(battery).not.toMatch(/Protective earth/);
    const adapter = cautions(
      applyPatch(logger, { source: { kind: 'adapter' } as unknown as Design['source'] }),
      null,
      40,
    ).join(' ');
    expect(adapter).toMatch(/approved adapter only/);
    expect(adapter).not.toMatch(/fuse close to its terminal/);
    for (const list of [battery, adapter]) expect(list).toMatch(/licensed electrician.*Discharge.*Eye protection/);
    expect(battery).not.toMatch(/secondary fuse/);
    expect(cautions(dome, null, null).at(-1)).toMatch(/not regulated.*secondary fuse/);
  });
});

import { stationFigures } from '@/core/picture/station-figures';
import { pictureOf } from '@/core/judge/picture';
import { applyPatch } from '@/core/design/design';
import { regulatorWays } from '@/core/study/regulator-schools';
import { heatView } from '@/core/study/heat-report';
import { clock, dome, logger, physics } from '../support/demos';

describe('ready-made against discrete', () => {
  const kinds = (d: typeof clock) =>
    Object.fromEntries(regulatorWays(d).map((w) => [w.id, (w.patch.regulator as { kind: string }).kind]));

  test('a ready-made one stays what it is; anything else becomes adjustable', () => {
    expect(kinds(clock)).toEqual({ 'ready-made': 'fixed', discrete: 'error-transistor', 'op-amp': 'bench' });
    expect(kinds(logger)['ready-made']).toBe('low-dropout');
    expect(kinds(physics)['ready-made']).toBe('adjustable');
    expect(regulatorWays(clock)[0]!.patch.regulator).toEqual(clock.regulator);
    expect(regulatorWays(physics).find((w) => w.id === 'op-amp')!.patch.regulator).toEqual(physics.regulator);
  });
});

test('a supply without diodes has no figures of them', () => {
  const bare = applyPatch(logger, { source: { ...logger.source, reverseDiode: false } as typeof logger.source });
  const { picture } = pictureOf(bare);
  expect(stationFigures(picture, 'rectifier', 'nominal')).toEqual([]);
  expect(stationFigures(pictureOf(clock).picture, 'rectifier', 'nominal').length).toBeGreaterThan(2);
});

test('the heat of cans is told of those that are there', () => {
  const names = (d: typeof clock) => heatView(d, 'nominal', null)!.rows.map((r) => r.name);
  expect(names(dome)).toContain('Reservoir');
  expect(names(applyPatch(dome, { reservoir: { capacitanceF: 0 } }))).not.toContain('Reservoir');
});

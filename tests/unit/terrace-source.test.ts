import { applyPatch, type Design } from '@/core/design/design';
import { FIELD_LIMITS } from '@/core/design/limits';
import { pictureOf } from '@/core/judge/picture';
import { stationFigures } from '@/core/picture/station-figures';
import type { StationId } from '@/core/judge/verdict';
import { DC_SOURCES, openVolts, shiftedSource, sourceOhm, type DcSource } from '@/core/parts/dc-source';
import { demoDesigns } from '@/core/design/demo-designs';
import { placesOf } from '@/ui/places';
import { dragEdits } from '@/ui/terrace/drag-edits';
import { flatPoints, voltAxis } from '@/core/picture/terrace-geometry';
import { STATION_CONTROLS } from '@/ui/terrace/station-controls';
import { terraceInWords } from '@/ui/terrace/terrace-in-words';

const designs = demoDesigns() as Design[];
const logger = designs[7]!;
const clock = designs[0]!;
const { picture } = pictureOf(logger);
const axis = voltAxis(4, 14, 80, 480, 26);
const adapter = DC_SOURCES.find((p) => p.id === 'plain-12')!.source;
const onAdapter = applyPatch(logger, { source: adapter });

describe('dragging the ends of a battery', () => {
  const drags = dragEdits(logger, picture, axis);

  test('not moving them changes nothing', () => {
    const still = drags.high(0).source as DcSource;
    expect(still).toEqual(logger.source);
    expect(drags.low(0).source).toEqual(logger.source);
  });

  test('up is more volts; fresh never falls under given up, nor the other way round', () => {
    const fresh = (px: number) => (drags.high(px).source as { freshV: number }).freshV;
    const empty = (px: number) => (drags.low(px).source as { emptyV: number }).emptyV;
    expect(fresh(30)).toBeGreaterThan(12.9);
    expect(empty(-30)).toBeLessThan(11);
    for (const px of [-5000, 5000]) {
      expect(fresh(px)).toBeGreaterThan(11);
      expect(empty(px)).toBeLessThan(12.9);
      expect(empty(px)).toBeGreaterThanOrEqual(FIELD_LIMITS['source.emptyV'].min);
      expect(fresh(px)).toBeLessThanOrEqual(FIELD_LIMITS['source.freshV'].max);
    }
  });

  test('there is no winding to drag', () => {
    expect(drags.winding).toBeNull();
  });

  test('of an adapter both ends move its spread', () => {
    const own = dragEdits(onAdapter, pictureOf(onAdapter).picture, voltAxis(4, 20, 80, 480, 26));
    const spread = (edit: (px: number) => unknown, px: number) =>
      (edit(px) as { source: { spreadPct: number } }).source.spreadPct;
    expect(spread(own.high, 0)).toBe(12);
    expect(spread(own.high, 20)).toBeGreaterThan(12);
    expect(spread(own.low, 20)).toBeLessThan(12);
    expect(spread(own.high, 5000)).toBeLessThanOrEqual(FIELD_LIMITS['source.spreadPct'].max);
  });
});

describe('the stations of a DC-fed terrace', () => {
  const named = (station: StationId, design: Design) => STATION_CONTROLS[station].name(design);

  test('are called by what stands there, and by their old names with the mains back', () => {
    expect(['mains', 'winding', 'rectifier'].map((s) => named(s as StationId, logger))).toEqual([
      'Battery',
      'Inside it',
      'Diode',
    ]);
    expect(named('mains', onAdapter)).toBe('Adapter');
    expect(['mains', 'winding', 'rectifier'].map((s) => named(s as StationId, clock))).toEqual([
      'Mains',
      'Winding',
      'Rectifier',
    ]);
  });

  test('step with the arrow keys: volts of the source, class of the diode, nothing inside', () => {
    const up = STATION_CONTROLS.mains.step(logger, 1)!.source as { freshV: number; emptyV: number };
    expect([up.freshV, up.emptyV]).toEqual([13, 11.1]);
    expect(STATION_CONTROLS.winding.step(logger, 1)).toBeNull();
    expect(STATION_CONTROLS.rectifier.step(logger, 1)!.rectifier!.diode).not.toBe(logger.rectifier.diode);
    const bare = applyPatch(logger, { source: { ...(logger.source as DcSource), reverseDiode: false } });
    expect(STATION_CONTROLS.rectifier.step(bare, 1)).toBeNull();
    expect(STATION_CONTROLS.rectifier.value(bare)).toBe('none');
  });

  test('read what matters there', () => {
    expect(STATION_CONTROLS.mains.reading(picture, 'nominal')).toMatch(/^lasts \d/);
    expect(STATION_CONTROLS.mains.reading(pictureOf(onAdapter).picture, 'nominal')).toBe('±12 %');
    expect(STATION_CONTROLS.winding.value(logger)).toBe('35 mΩ');
  });

  test('every figure of every station has a finite value and a working', () => {
    for (const design of [logger, onAdapter, applyPatch(logger, { source: { ...adapter, reverseDiode: false } })]) {
      const own = pictureOf(design).picture;
      for (const station of ['mains', 'winding', 'rectifier', 'reservoir', 'regulator', 'load'] as const) {
        for (const figure of stationFigures(own, station, 'nominal')) {
          expect([figure.id, Number.isFinite(figure.value)]).toEqual([figure.id, true]);
          expect(figure.expression.length).toBeGreaterThan(3);
          expect(`${figure.label} ${figure.expression} ${figure.source}`).not.toMatch(/winding|transformer/i);
        }
      }
    }
  });

  test('the drawing in words speaks of the battery, its line is level', () => {
    expect(terraceInWords(picture)).toMatch(/the battery stands at 1[12]\.\d V/);
    expect(terraceInWords(picture)).not.toMatch(/winding|line/);
    expect(new Set(flatPoints(12, [0, 50]).map((p) => p[1]))).toEqual(new Set([12]));
  });

  test('the place where power comes in is called after it', () => {
    const rooms = (d: Design) => placesOf(d).flatMap((p) => p.rooms.map((r) => r.name));
    expect(rooms(logger)).toContain('Source side');
    expect(rooms(logger)).not.toContain('Transformer');
    expect(rooms(clock)).toContain('Mains side');
    expect(rooms(clock)).toContain('Transformer');
    expect(placesOf(clock).map((p) => p.name)).toEqual(['Need', 'Design', 'Buy', 'Build', 'Bench', 'Keep']);
  });
});

describe('the classes of DC sources', () => {
  test.each(DC_SOURCES.map((p) => [p.name, p.source] as const))('%s falls from high to low', (_, source) => {
    expect(openVolts(source, 'low')).toBeLessThan(openVolts(source, 'nominal'));
    expect(openVolts(source, 'nominal')).toBeLessThan(openVolts(source, 'high'));
    expect(sourceOhm(source)).toBeGreaterThan(0);
    const lower = shiftedSource(source, -0.5);
    expect(openVolts(lower, 'nominal')).toBeLessThan(openVolts(source, 'nominal'));
  });

  test('a nine-volt block feeds a small load for hours and lets go early under a large one', () => {
    const block = DC_SOURCES.find((p) => p.id === 'block-9')!.source;
    const lasts = (outputA: number) =>
      pictureOf(applyPatch(logger, { source: block, demand: { outputA, typicalA: null }, outputs: [] })).picture.life!;
    expect(lasts(0.02).hours).toBeGreaterThan(8);
    expect(lasts(0.4).hours).toBeLessThan(1.5);
    expect(lasts(0.4).letsGoV).not.toBeNull();
  });
});

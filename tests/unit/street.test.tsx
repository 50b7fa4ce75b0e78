/** @jest-environment @stryker-mutator/jest-runner/jest-env/jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { nextStep } from '@/core/bench/next-step';
import { mainsForReadings } from '@/core/bench/readings';
import { stagesOf } from '@/core/bench/stages';
import { testPoints } from '@/core/bench/test-points';
import { applyPatch, type Design } from '@/core/design/design';
import { pictureOf } from '@/core/judge/picture';
import { onRail } from '@/core/study/point';
import { verdictsInWords } from '@/ui/announcer';
import { letterKeys, setLetterKeys } from '@/ui/letter-keys';
import { isPinned, keptPins, togglePin } from '@/ui/pins';
import { placesOf, roomAt, roomPath } from '@/ui/places';
import { stateInWords } from '@/ui/state-in-words';
import { lensAxis } from '@/core/picture/terrace-geometry';
import { lensOf } from '@/ui/terrace/lens';
import { STATION_CONTROLS } from '@/ui/terrace/station-controls';
import { TypeOver } from '@/ui/terrace/type-over';
import { createView } from '@/ui/view';
import { clock, dome, drum, logger, pen, physics, tide } from '../support/demos';

const good = { verdicts: [{ title: 'Headroom at low line', state: 'holds' as const }], fails: 0 };
const fused = applyPatch(clock, { mainsSide: { primaryFuseA: 0.5 } });
const reading = (point: string) => ({
  point,
  value: 1,
  mainsV: 230,
  fedFrom: 'mains' as const,
  at: '2026-01-31T21:00:00Z',
});
const read = (design: Design, points: readonly string[]) =>
  applyPatch(design, { bench: { readings: points.map(reading) } });

describe('what is next', () => {
  it('is the verdict that fails first, and how many fail with it', () => {
    const verdicts = [
      { title: 'Headroom at low line', state: 'fails' as const },
      { title: 'Output ripple', state: 'fails' as const },
    ];
    expect(nextStep(fused, { verdicts, fails: 2 })).toEqual({
      room: 'supply',
      text: 'cure headroom at low line, the first of 2 that fail',
    });
    expect(nextStep(fused, { verdicts: verdicts.slice(0, 1), fails: 1 }).text).toBe('cure headroom at low line');
  });

  it('is the fuse, then the checklist, then stage by stage, then the sheet', () => {
    expect(nextStep(applyPatch(clock, { mainsSide: { primaryFuseA: null } }), good).room).toBe('mains');
    const open = applyPatch(fused, { mainsSide: { ticked: [] }, bench: { readings: [] } });
    expect(nextStep(open, good).room).toBe('checklist');
    const ticked = applyPatch(open, { mainsSide: { ticked: ['label'] } });
    expect(nextStep(ticked, good)).toEqual({ room: 'bench', text: 'stage 2, transformer alone, is not yet read' });
    expect(nextStep(read(ticked, ['mains', 'secondary-open']), good).text).toBe(
      'stage 3, rectifier and reservoir, is not yet read',
    );
    const all = stagesOf(ticked).flatMap((s) => s.points);
    expect(nextStep(read(ticked, all), good).room).toBe('sheet');
    expect(nextStep(read(ticked, all.slice(0, -1)), good).text).toContain('after half an hour');
  });

  it('asks no battery and no bought adapter for a primary fuse', () => {
    const bare = applyPatch(logger, { mainsSide: { ticked: [] }, bench: { readings: [] } });
    expect(nextStep(bare, good).room).toBe('checklist');
    const sealed = applyPatch(clock, {
      transformer: { sealed: true },
      mainsSide: { primaryFuseA: null, ticked: [] },
      bench: { readings: [] },
    });
    expect(nextStep(sealed, good).room).toBe('checklist');
  });

  it('knows the stages the bench will ask for, in every design', () => {
    for (const design of [clock, dome, drum, logger, pen, physics, tide]) {
      const points = testPoints(design, mainsForReadings(design));
      const asked = [...new Set(points.map((p) => p.stage))].map((name) => ({
        name,
        points: points.filter((p) => p.stage === name).map((p) => p.id as string),
      }));
      const told = stagesOf(design).map((s) => ({ name: s.name, points: [...s.points, ...s.more].sort() }));
      expect(told).toEqual(asked.map((s) => ({ ...s, points: s.points.sort() })));
    }
  });
});

describe('the street', () => {
  it('gives every room an address and finds it again', () => {
    for (const { rooms } of placesOf(clock))
      for (const { id } of rooms) expect(roomAt(roomPath('abc', id), 'abc')).toBe(id);
    expect(roomPath('abc', 'supply')).toBe('/design/abc');
    expect(roomAt('/design/abc/', 'abc')).toBe('supply');
  });

  it('says how a design stands', () => {
    const verdicts = Array.from({ length: 12 }, () => ({}) as never);
    expect(stateInWords({ verdicts, fails: 2, tight: 3 }, true)).toEqual({ sign: 'fails', words: '2 of 12 fail' });
    expect(stateInWords({ verdicts, fails: 0, tight: 3 }, true).words).toBe('All 12 pass, 3 tight');
    expect(stateInWords({ verdicts, fails: 0, tight: 0 }, true).sign).toBe('holds');
    expect(stateInWords({ verdicts, fails: 0, tight: 0 }, false).words).toBe('Not solved yet');
    expect(stateInWords(null, true).sign).toBeNull();
  });

  it('tells a changed verdict in one sentence', () => {
    const { picture } = pictureOf(pen);
    const first = picture.verdicts[0]!;
    expect(verdictsInWords(picture)).toBe(`${picture.fails} fail: ${first.title.toLowerCase()}. ${first.sentence}`);
    expect(verdictsInWords({ verdicts: [first], fails: 1 })).toMatch(/^1 fails: /);
    expect(verdictsInWords({ verdicts: [{ ...first, state: 'holds' }], fails: 0 })).toBe('All 1 pass.');
  });

  it('keeps six pins, the oldest goes', () => {
    const view = createView({ id: 'abc', design: clock, revision: 1, updatedAt: '' }, null);
    for (let n = 0; n < 7; n++) togglePin(view, { station: 'load', figure: `f${n}` });
    expect(view.getState().pins.map((p) => p.figure)).toEqual(['f1', 'f2', 'f3', 'f4', 'f5', 'f6']);
    expect(keptPins('abc')).toEqual(view.getState().pins);
    togglePin(view, { station: 'load', figure: 'f3' });
    expect(isPinned(view.getState().pins, 'f3')).toBe(false);
    expect(keptPins('abc')).toHaveLength(5);
    localStorage.setItem('ember-rail-pins-abc', '{"no":"list"}');
    expect(keptPins('abc')).toEqual([]);
    localStorage.setItem('ember-rail-pins-abc', 'broken');
    expect(keptPins('abc')).toEqual([]);
  });

  it('has its single-letter keys on until they are switched off', () => {
    expect(letterKeys()).toBe(true);
    setLetterKeys(false);
    expect(letterKeys()).toBe(false);
    setLetterKeys(true);
    expect(letterKeys()).toBe(true);
  });
});

describe('the lens', () => {
  it('stands around the valley and what the regulator needs', () => {
    const { picture } = pictureOf(pen);
    const { fromV, toV } = lensOf(picture);
    const valleyV = onRail(picture.points.low, 0).rail.minV;
    const needed = picture.neededV!;
    expect(fromV).toBeLessThan(Math.min(valleyV, needed));
    expect(toV).toBeGreaterThan(Math.max(valleyV, needed));
    // The gap itself takes a good part of the height, whatever its size.
    expect(Math.abs(valleyV - needed) / (toV - fromV)).toBeGreaterThan(0.3);
  });

  it('of an unregulated supply stands around the end of the window it comes nearest to', () => {
    const { picture } = pictureOf(dome);
    const { fromV, toV } = lensOf(picture);
    const lowest = onRail(picture.points.low, 0).outputMinV;
    const highest = onRail(picture.points.high, 0).outputMaxV;
    expect([lowest, highest].some((v) => v > fromV && v < toV)).toBe(true);
    expect(toV - fromV).toBeLessThan(picture.points.high.reservoir.maxV / 2);
  });

  it('gives its stretch the height above the fold', () => {
    const axis = lensAxis({ fromV: 10, toV: 12 }, 60, 400, 26);
    expect([axis.y(0), axis.y(10), axis.y(12)]).toEqual([400, 374, 60]);
    expect(axis.y(13)).toBeLessThan(60);
    expect(lensAxis({ fromV: 0, toV: 2 }, 60, 400, 26).y(1)).toBe(230);
  });
});

describe('a number typed over on the drawing', () => {
  const typed = STATION_CONTROLS.reservoir.typed!(clock)!;

  function stand() {
    const taken: unknown[] = [];
    const done: boolean[] = [];
    render(<TypeOver typed={typed} onCommit={(p) => taken.push(p)} onDone={(b) => done.push(b)} />);
    return { taken, done, field: screen.getByRole('textbox') };
  }
  const type = (field: HTMLElement, value: string, key: string) =>
    act(() => {
      fireEvent.change(field, { target: { value } });
      fireEvent.keyDown(field, { key });
    });

  it('is taken on Enter, as builders write it', () => {
    const { taken, done, field } = stand();
    type(field, '4m7', 'Enter');
    expect(taken).toEqual([{ reservoir: { capacitanceF: 4.7e-3 } }]);
    expect(done).toEqual([true]);
  });

  it('stays with a sentence where it cannot be read, and Escape leaves it', () => {
    const { taken, done, field } = stand();
    type(field, 'lots', 'Enter');
    expect(taken).toEqual([]);
    expect(done).toEqual([]);
    expect(screen.getByRole('alert').textContent).not.toBe('');
    type(field, '1000 F', 'Enter');
    expect(screen.getByRole('alert').textContent).toMatch(/beyond any real supply/);
    type(field, '1000 F', 'Escape');
    expect([taken, done]).toEqual([[], [true]]);
  });

  it('is what the station shows: mains, winding, can and load; none where several stand side by side', () => {
    const value = (d: Design, s: 'mains' | 'winding' | 'reservoir' | 'load') => STATION_CONTROLS[s].typed!(d);
    expect(value(clock, 'mains')!.value).toBe(clock.mains.voltageRms);
    expect(value(logger, 'mains')!.patch(12)).toEqual({ source: { ...logger.source, freshV: 12 } });
    expect(value(logger, 'winding')).toBeNull();
    expect(applyPatch(clock, value(clock, 'winding')!.patch(24)).transformer.ratedV).toBe(24);
    expect(value(applyPatch(clock, { reservoir: { cans: 2 } }), 'reservoir')).toBeNull();
    expect(value(clock, 'load')!.patch(2)).toEqual({ demand: { outputA: 2 } });
    expect(drum.demand.negativeA).not.toBeNull();
    expect(value(drum, 'load')).toBeNull();
  });
});

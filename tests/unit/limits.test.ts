import fc from 'fast-check';
import { applyPatch, type Design } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';
import { curesOf } from '@/core/judge/cures-of';
import { RULE_IDS } from '@/core/judge/rules';
import { border } from '@/ui/border';
import { createDesignStore } from '@/ui/design-store';
import { STATION_CONTROLS } from '@/ui/terrace/station-controls';
import { demoDesigns } from '@/core/design/demo-designs';
import { plausible } from '../support/designs';

const STATIONS = Object.values(STATION_CONTROLS);
const any = fc.oneof(fc.constantFrom(...demoDesigns()), plausible);

test('an edit made before the border has arrived is taken, and goes back with its sentence where it is refused', async () => {
  const [design] = demoDesigns() as [Design];
  const store = createDesignStore(design);
  store.getState().edit({ reservoir: { capacitanceF: 7 } });
  expect(store.getState().design.reservoir.capacitanceF).toBe(7);
  store.getState().edit({ name: 'Meanwhile' });
  await border();
  await Promise.resolve();
  expect(store.getState().design).toBe(design);
  expect(store.getState().refused).toMatch(/1 F|capacitance/i);
});

describe('where the border cannot be fetched', () => {
  /** A document with an edit its border would refuse, taken while the border did not come. */
  async function withAnEditOnTrust(
    then: (store: ReturnType<typeof createDesignStore>, design: Design, borderComes: typeof border) => Promise<void>,
  ) {
    await jest.isolateModulesAsync(async () => {
      let asked = 0;
      jest.doMock('@/ui/border-in-pieces', () => ({
        borderInPieces: () => (asked++ === 0 ? Promise.reject(new Error('no answer')) : Promise.resolve(readDesign)),
      }));
      const fresh = await import('@/ui/design-store');
      const { border: borderComes } = await import('@/ui/border');
      const [design] = demoDesigns() as [Design];
      const store = fresh.createDesignStore(design);
      store.getState().edit({ reservoir: { capacitanceF: 7 } });
      await expect(borderComes()).rejects.toThrow('no answer');
      await new Promise((resolve) => setTimeout(resolve));
      expect(store.getState()).toMatchObject({ design: { reservoir: { capacitanceF: 7 } }, refused: null });
      await then(store, design, borderComes);
      expect(asked).toBe(2);
      jest.dontMock('@/ui/border-in-pieces');
    });
  }

  test('an edit stays, and the next one asks again', () =>
    withAnEditOnTrust(async (store, design, borderComes) => {
      store.getState().edit({ name: 'Meanwhile' });
      await borderComes();
      await Promise.resolve();
      expect(store.getState().design).toBe(design);
    }));

  test('and it came another way: the next edit begins at what the border takes', () =>
    withAnEditOnTrust(async (store, design, borderComes) => {
      await borderComes();
      store.getState().edit({ name: 'Afterwards' });
      expect(store.getState().design).toEqual({ ...design, name: 'Afterwards' });
    }));
});

describe('nothing makes a document its own border refuses', () => {
  beforeAll(() => border());

  test('however long an arrow key is held, on whatever station', () => {
    fc.assert(
      fc.property(
        any,
        fc.constantFrom(...STATIONS),
        fc.constantFrom(-10, -1, 1, 10),
        fc.integer({ min: 1, max: 60 }),
        (design, station, direction, times) => {
          const store = createDesignStore(design);
          for (let n = 0; n < times; n++) {
            const patch = station.step(store.getState().design, direction);
            if (patch) store.getState().edit(patch);
          }
          expect(readDesign(JSON.parse(JSON.stringify(store.getState().design))).ok).toBe(true);
        },
      ),
      { numRuns: 150 },
    );
  });

  test('a small battery with the arrow held down stays one that can be saved, and why is said', () => {
    const logger = (demoDesigns() as Design[])[7]!;
    const small = applyPatch(logger, {
      source: {
        kind: 'battery',
        freshV: 1.2,
        emptyV: 0.9,
        resistanceOhm: 0.1,
        capacityAh: 2,
        reverseDiode: true,
      },
    });
    const store = createDesignStore(small);
    for (let n = 0; n < 30; n++) {
      const patch = STATION_CONTROLS.mains.step(store.getState().design, -1);
      if (patch) store.getState().edit(patch);
    }
    expect(readDesign(store.getState().design).ok).toBe(true);
  });

  test('an edit beyond its limit changes nothing, says its sentence, and the next good one clears it', () => {
    const store = createDesignStore(demoDesigns()[0]!);
    const before = store.getState().design;
    store.getState().edit({ reservoir: { capacitanceF: 7 } });
    expect(store.getState().design).toBe(before);
    expect(store.getState().refused).toMatch(/goes up to 1 F|capacitance/i);
    store.getState().edit({ reservoir: { capacitanceF: 0.01 } });
    expect(store.getState().refused).toBeNull();
    expect(store.getState().design.reservoir.capacitanceF).toBe(0.01);
  });

  test('cures are edits that can be saved, and leave alone what is fixed', () => {
    fc.assert(
      fc.property(any, fc.constantFrom(...RULE_IDS), (design, id) => {
        for (const { patch } of curesOf(design, id, null)) {
          expect(readDesign(JSON.parse(JSON.stringify(applyPatch(design, patch)))).ok).toBe(true);
        }
        const kept: Design = { ...design, fixed: ['transformer', 'reservoir', 'regulator'] };
        for (const { patch } of curesOf(kept, id, null)) {
          const next = applyPatch(kept, patch);
          expect(next.transformer).toEqual(kept.transformer);
          expect(next.reservoir).toEqual(kept.reservoir);
          expect(next.regulator).toEqual(kept.regulator);
        }
      }),
      { numRuns: 60 },
    );
  });
});

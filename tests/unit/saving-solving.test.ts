import type { Design } from '@/core/design/design';
import { pictureOf, type Picture } from '@/core/judge/picture';
import { demoDesigns } from '@/server/demo';
import { startAutosave } from '@/ui/autosave';
import { createDesignStore } from '@/ui/design-store';
import { startSolving } from '@/ui/solving';
import { createView } from '@/ui/view';

type Answer = { ok: true; value: Picture } | { ok: false; error: string };
const asked: { design: Design; answer: (a: Answer) => void }[] = [];
const fixJobs: { job: number; give: (verdict: string, fixes: unknown[]) => void; done: () => void }[] = [];

jest.mock('@/workers/client', () => ({
  callback: <T>(f: T) => f,
  solver: () => ({
    evaluate: (design: Design) => new Promise<Answer>((answer) => asked.push({ design, answer })),
    fixes: (job: number, _design: Design, give: (verdict: string, fixes: unknown[]) => void) =>
      new Promise<void>((done) => fixJobs.push({ job, give, done })),
  }),
}));

const design = demoDesigns()[0]!;
const stored = { id: 'a', design, revision: 1, updatedAt: '2026-01-01T00:00:00.000Z' };
const settle = async () => {
  for (let n = 0; n < 6; n++) await Promise.resolve();
};

beforeEach(() => {
  jest.useFakeTimers();
  asked.length = 0;
  fixJobs.length = 0;
  Object.assign(globalThis, { requestAnimationFrame: () => 0 });
});
afterEach(() => jest.useRealTimers());

describe('autosave', () => {
  type Call = {
    url: string;
    body: { design: Design; revision: number };
    reply: (status: number, body: unknown) => Promise<void>;
  };
  const calls: Call[] = [];

  function begin() {
    calls.length = 0;
    Object.assign(globalThis, {
      fetch: (url: string, init: { body: string }) =>
        new Promise((resolve) => {
          calls.push({
            url,
            body: JSON.parse(init.body) as Call['body'],
            reply: async (status, body) => {
              resolve({ ok: status < 300, status, json: async () => body });
              await settle();
            },
          });
        }),
    });
    const document = createDesignStore(design);
    const view = createView(stored, null);
    return { document, view, saving: startAutosave(document, view) };
  }

  test('waits for the hand to rest, then saves the newest state over the revision it knows', async () => {
    const { document, view } = begin();
    document.getState().edit({ name: 'A' });
    document.getState().edit({ name: 'AB' });
    expect(view.getState().save).toBe('unsaved');
    expect(calls).toHaveLength(0);
    jest.advanceTimersByTime(1000);
    await settle();
    expect(calls).toHaveLength(1);
    expect(calls[0]!.body).toMatchObject({ revision: 1, design: { name: 'AB' } });
    await calls[0]!.reply(200, { revision: 2 });
    expect(view.getState()).toMatchObject({ save: 'saved', revision: 2 });
  });

  test('saves within a second of the last edit', async () => {
    const { document } = begin();
    document.getState().edit({ name: 'A' });
    jest.advanceTimersByTime(999);
    await settle();
    expect(calls).toHaveLength(1);
  });

  test('what changes while a save is under way is saved next, over the new revision', async () => {
    const { document, view } = begin();
    document.getState().edit({ name: 'A' });
    jest.advanceTimersByTime(1000);
    await settle();
    document.getState().edit({ name: 'B' });
    await calls[0]!.reply(200, { revision: 2 });
    expect(view.getState().save).toBe('unsaved');
    jest.advanceTimersByTime(1000);
    await settle();
    expect(calls[1]!.body).toMatchObject({ revision: 2, design: { name: 'B' } });
    await calls[1]!.reply(200, { revision: 3 });
    expect(view.getState().save).toBe('saved');
  });

  test('a moved revision stops the saving until the person has chosen', async () => {
    const { document, view, saving } = begin();
    document.getState().edit({ name: 'Mine' });
    jest.advanceTimersByTime(1000);
    await settle();
    const theirs = { ...stored, revision: 5, design: { ...design, name: 'Theirs' } };
    await calls[0]!.reply(409, { current: theirs });
    expect(view.getState()).toMatchObject({ save: 'conflict', conflict: theirs });
    document.getState().edit({ name: 'Mine, still' });
    jest.advanceTimersByTime(5000);
    await settle();
    expect(calls).toHaveLength(1);
    void saving.settle('mine');
    await settle();
    expect(calls[1]!.body).toMatchObject({ revision: 5, design: { name: 'Mine, still' } });
  });

  test('taking theirs can be undone', async () => {
    const { document, view, saving } = begin();
    document.getState().edit({ name: 'Mine' });
    jest.advanceTimersByTime(1000);
    await settle();
    await calls[0]!.reply(409, { current: { ...stored, revision: 5, design: { ...design, name: 'Theirs' } } });
    await saving.settle('theirs');
    expect(document.getState().design.name).toBe('Theirs');
    expect(view.getState()).toMatchObject({ save: 'saved', revision: 5 });
    document.temporal.getState().undo();
    expect(document.getState().design.name).toBe('Mine');
  });

  test('a program that does not answer is asked again, and nothing is given up', async () => {
    const { document, view } = begin();
    Object.assign(globalThis, { fetch: () => Promise.reject(new Error('refused')) });
    document.getState().edit({ name: 'A' });
    jest.advanceTimersByTime(1000);
    await settle();
    expect(view.getState().save).toBe('offline');
    let tried = 0;
    Object.assign(globalThis, {
      fetch: () => {
        tried++;
        return Promise.reject(new Error('refused'));
      },
    });
    jest.advanceTimersByTime(4000);
    await settle();
    expect(tried).toBe(1);
    expect(document.getState().design.name).toBe('A');
  });

  test('an undo back to what is saved needs no save', () => {
    const { document, view } = begin();
    document.getState().edit({ name: 'A' });
    document.temporal.getState().undo();
    expect(view.getState().save).toBe('saved');
    jest.advanceTimersByTime(5000);
    expect(calls).toHaveLength(0);
  });
});

describe('solving', () => {
  const good = pictureOf(design).picture;

  test('the newest design is always the next one solved; what was overtaken is dropped', async () => {
    const document = createDesignStore(design);
    const view = createView(stored, null);
    const stop = startSolving(document, view);
    for (const ratedV of [25, 26, 27]) document.getState().edit({ transformer: { ratedV } });
    expect(asked).toHaveLength(1);
    asked[0]!.answer({ ok: true, value: good });
    await settle();
    expect(asked).toHaveLength(2);
    expect(asked[1]!.design.transformer.ratedV).toBe(27);
    stop();
  });

  test('a solve that fails says so and leaves the last good picture', async () => {
    const document = createDesignStore(design);
    const view = createView(stored, good);
    const stop = startSolving(document, view);
    document.getState().edit({ transformer: { ratedV: 25 } });
    asked[0]!.answer({ ok: false, error: 'At low line: no cycle was found.' });
    await settle();
    expect(view.getState().picture).toBe(good);
    expect(view.getState().trouble).toBe('At low line: no cycle was found.');
    document.getState().edit({ transformer: { ratedV: 26 } });
    asked[1]!.answer({ ok: true, value: { ...good } });
    await settle();
    expect(view.getState().trouble).toBeNull();
    stop();
  });

  test('words and readings cost no solving', () => {
    const document = createDesignStore(design);
    const stop = startSolving(document, createView(stored, good));
    document.getState().edit({ name: 'Another name' });
    document.getState().edit({ bench: { meterPct: 1 } });
    expect(asked).toHaveLength(0);
    stop();
  });

  test('whatever a solution depends on is solved anew: of a design only words, readings and ticks are not', () => {
    const words = ['name', 'note', 'bench', 'picked', 'mainsSide', 'format', 'version'];
    const members = (Object.keys(design) as (keyof typeof design)[]).filter((key) => !words.includes(key));
    expect(members).toEqual(expect.arrayContaining(['demand', 'regulator', 'preRegulator', 'heat', 'heater']));
    for (const key of members) {
      asked.length = 0;
      const document = createDesignStore(design);
      const stop = startSolving(document, createView(stored, good));
      // The same values as a new object: a change as far as the document can tell.
      const copy: unknown = JSON.parse(JSON.stringify(design[key]));
      document.setState({ design: { ...design, [key]: copy ?? { ratedV: 6.3, currentA: 1 } } });
      expect([key, asked.length]).toEqual([key, 1]);
      stop();
    }
    asked.length = 0;
    const document = createDesignStore(design);
    const stop = startSolving(document, createView(stored, good));
    document.getState().edit({ mainsSide: { ticked: ['earth'] } });
    expect(asked).toHaveLength(0);
    document.getState().edit({ mainsSide: { box: design.mainsSide.box === 'metal' ? 'plastic' : 'metal' } });
    expect(asked).toHaveLength(1);
    stop();
  });

  test('fixes of a design that moved on are thrown away', async () => {
    const document = createDesignStore(design);
    const view = createView(stored, good);
    const stop = startSolving(document, view);
    document.getState().edit({ transformer: { ratedV: 24.5 } });
    jest.advanceTimersByTime(500);
    expect(fixJobs).toHaveLength(1);
    document.getState().edit({ transformer: { ratedV: 25 } });
    fixJobs[0]!.give('headroom', [{ late: true }]);
    fixJobs[0]!.done();
    await settle();
    expect(view.getState().fixes).toEqual({});
    expect(view.getState().fixing).toBe(true);
    jest.advanceTimersByTime(500);
    fixJobs[1]!.give('headroom', []);
    fixJobs[1]!.done();
    await settle();
    expect(view.getState()).toMatchObject({ fixes: { headroom: [] }, fixing: false });
    stop();
  });
});

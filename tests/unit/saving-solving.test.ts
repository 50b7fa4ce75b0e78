import type { Design } from '@/core/design/design';
import { pictureOf } from '@/core/judge/picture';
import type { Picture } from '@/core/picture/picture';
import { demoDesigns } from '@/core/design/demo-designs';
import { startAutosave } from '@/ui/autosave';
import { border } from '@/ui/border';
import { createDesignStore } from '@/ui/design-store';
import { startSolving } from '@/ui/solving';
import { createView } from '@/ui/view';

type Answer = { ok: true; value: Picture } | { ok: false; error: string };
const asked: { design: Design; answer: (a: Answer) => void; fail: (reason: unknown) => void }[] = [];
const fixJobs: {
  job: number;
  give: (verdict: string, fixes: unknown[]) => void;
  done: () => void;
  fail: (reason: unknown) => void;
}[] = [];
const dropped: boolean[] = [];
/** Times a search for fixes was told that the design has moved on. */
let letGo = 0;

const replaced: string[] = [];
jest.mock('@/workers/client', () => ({
  SolverGone: class SolverGone extends Error {},
  callback: <T>(f: T) => f,
  replaceSolver: (role: string) => replaced.push(role),
  dropSearch: (everything: boolean) => dropped.push(everything),
  dropFixes: () => letGo++,
  solver: () => ({
    evaluate: (design: Design) => new Promise<Answer>((answer, fail) => asked.push({ design, answer, fail })),
    go: ({ work }: { work: number }, tell: (batches: ({ verdict: string; fixes: unknown[] } | null)[]) => void) =>
      new Promise((answer, fail) =>
        fixJobs.push({
          job: work,
          give: (verdict, fixes) => tell([null, { verdict, fixes }]),
          done: () => answer({ ok: true, value: { parts: [], end: undefined, tookMs: 1 } }),
          fail,
        }),
      ),
  }),
}));

const design = demoDesigns()[0]!;
beforeAll(() => border());
const stored = { id: 'a', design, revision: 1, updatedAt: '2026-01-01T00:00:00.000Z' };
const settle = async () => {
  for (let n = 0; n < 6; n++) await Promise.resolve();
};

/** What a browser keeps, with room for so many letters. */
function browserStore(room = Infinity) {
  const held = new Map<string, string>();
  return {
    held,
    getItem: (key: string) => held.get(key) ?? null,
    removeItem: (key: string) => void held.delete(key),
    setItem: (key: string, text: string) => {
      if (text.length > room) throw new Error('quota');
      held.set(key, text);
    },
  };
}

beforeEach(() => {
  jest.useFakeTimers();
  asked.length = 0;
  fixJobs.length = 0;
  dropped.length = 0;
  letGo = 0;
  replaced.length = 0;
  Object.assign(globalThis, {
    requestAnimationFrame: () => 0,
    window: new EventTarget(),
    localStorage: browserStore(),
  });
});
afterEach(() => jest.useRealTimers());

describe('autosave', () => {
  type Call = {
    url: string;
    body: { design: Design; revision: number; save: string };
    signal: AbortSignal;
    reply: (status: number, body: unknown) => Promise<void>;
    lose: () => Promise<void>;
  };
  /** Saves, in their order; other requests are answered at once. */
  const calls: Call[] = [];
  const others: [string, string][] = [];
  let now: unknown = null;

  function serve(answer: (method: string, url: string) => [number, unknown] = () => [404, {}]) {
    calls.length = 0;
    others.length = 0;
    Object.assign(globalThis, {
      fetch: (url: string, init: { method?: string; body?: string; signal?: AbortSignal } = {}) =>
        new Promise((resolve, reject) => {
          const give = (status: number, body: unknown) => resolve({ ok: status < 300, status, json: async () => body });
          if (init.method !== 'PUT') {
            others.push([init.method ?? 'GET', url]);
            return give(
              ...(now && !init.method ? ([200, now] as [number, unknown]) : answer(init.method ?? 'GET', url)),
            );
          }
          calls.push({
            url,
            body: JSON.parse(init.body!) as Call['body'],
            signal: init.signal!,
            reply: async (status, body) => {
              give(status, body);
              await settle();
            },
            lose: async () => {
              reject(new Error('lost'));
              await settle();
            },
          });
        }),
    });
  }

  function begin(answer?: Parameters<typeof serve>[0]) {
    serve(answer);
    const document = createDesignStore(design);
    const view = createView(stored, null);
    return { document, view, saving: startAutosave(document, view) };
  }
  const kept = () => [...(localStorage as unknown as ReturnType<typeof browserStore>).held.values()];
  /** The hand rests, and what was due has been sent. */
  const rested = async (ms = 1000) => {
    jest.advanceTimersByTime(ms);
    await settle();
  };
  beforeEach(() => (now = null));

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

  test('a program that does not answer is asked again for the same save, and nothing is given up', async () => {
    const { document, view } = begin();
    document.getState().edit({ name: 'A' });
    await rested();
    await calls[0]!.lose();
    expect(view.getState().save).toBe('offline');
    expect(kept()[0]).toContain('"name":"A"');
    document.getState().edit({ name: 'AB' });
    await rested(4000);
    // It may have arrived and only its answer been lost: sent as it was, under its own name.
    expect(calls[1]!.body).toEqual(calls[0]!.body);
    await calls[1]!.reply(200, { revision: 2 });
    await rested();
    expect(calls[2]!.body).toMatchObject({ revision: 2, design: { name: 'AB' } });
    expect(calls[2]!.body.save).not.toBe(calls[1]!.body.save);
    await calls[2]!.reply(200, { revision: 3 });
    expect(view.getState().save).toBe('saved');
    expect(kept()).toEqual([]);
  });

  test('an answer that never comes is not waited for beyond its patience', async () => {
    jest.useRealTimers();
    const patience = jest.spyOn(AbortSignal, 'timeout');
    const { saving, document } = begin();
    document.getState().edit({ name: 'A' });
    void saving.flush();
    await settle();
    expect(patience).toHaveBeenCalledWith(10_000);
    expect(calls[0]!.signal).toBe(patience.mock.results[0]!.value);
    saving.stop();
    patience.mockRestore();
  });

  test('a refusal in words is shown, and the save tried again', async () => {
    const { document, view } = begin();
    document.getState().edit({ name: 'A' });
    await rested();
    await calls[0]!.reply(507, { detail: 'The disk is full.' });
    expect(view.getState()).toMatchObject({ save: 'offline', saveTrouble: 'The disk is full.' });
    await rested(4000);
    await calls[1]!.reply(200, { revision: 2 });
    expect(view.getState()).toMatchObject({ save: 'saved', saveTrouble: null });
  });

  test('what was never saved is offered on return, taken or let go', async () => {
    const first = begin();
    first.document.getState().edit({ name: 'Before the lights went out' });
    first.saving.stop();
    await settle();
    const second = begin();
    await settle();
    expect(second.view.getState().kept).toMatchObject({ revision: 1, design: { name: 'Before the lights went out' } });
    expect(second.document.getState().design.name).toBe(design.name);
    second.saving.answerKept(true);
    expect(second.document.getState().design.name).toBe('Before the lights went out');
    await rested();
    expect(calls[0]!.body.design.name).toBe('Before the lights went out');
    await calls[0]!.reply(200, { revision: 2 });
    expect(kept()).toEqual([]);

    second.document.getState().edit({ name: 'Again' });
    second.saving.stop();
    const third = begin();
    await settle();
    third.saving.answerKept(false);
    expect(third.view.getState().kept).toBeNull();
    expect(kept()).toEqual([]);
    expect(third.document.getState().design.name).toBe(design.name);
  });

  test('what this browser kept and nobody can read is not offered', async () => {
    localStorage.setItem(
      'ember-rail-unsaved:a',
      JSON.stringify({ design: { ...design, demand: null }, revision: 1, at: '' }),
    );
    const { view } = begin();
    await settle();
    expect(view.getState().kept).toBeNull();
  });

  test('a drag is kept as it goes on, but not with every frame of it', () => {
    const { document } = begin();
    const written = jest.spyOn(localStorage, 'setItem');
    for (let frame = 0; frame < 60; frame++) {
      document.getState().edit({ name: `frame ${frame}` });
      jest.advanceTimersByTime(16);
    }
    expect(written.mock.calls.length).toBeGreaterThan(3);
    expect(written.mock.calls.length).toBeLessThan(10);
  });

  test('a browser without room is said, and leaving warns then only', async () => {
    const leaving = () => {
      const event = new Event('beforeunload', { cancelable: true });
      window.dispatchEvent(event);
      return event.defaultPrevented;
    };
    const roomy = begin();
    roomy.document.getState().edit({ name: 'A' });
    expect(leaving()).toBe(false);
    roomy.saving.stop();
    Object.assign(globalThis, { localStorage: browserStore(10) });
    const { document, view } = begin();
    document.getState().edit({ name: 'A' });
    expect(leaving()).toBe(true);
    expect(view.getState().unkept).toBe(true);
    await rested();
    await calls[0]!.reply(200, { revision: 2 });
    expect(leaving()).toBe(false);
  });

  test('a page out of the browser’s memory shows what is stored now, unless it was changed here', async () => {
    now = { ...stored, revision: 4, design: { ...design, name: 'Saved since' } };
    const { document, view } = begin();
    await settle();
    await settle();
    expect(document.getState().design.name).toBe('Saved since');
    expect(view.getState()).toMatchObject({ revision: 4, save: 'saved' });
    const changed = begin();
    changed.document.getState().edit({ name: 'Mine' });
    await settle();
    await settle();
    expect(changed.document.getState().design.name).toBe('Mine');
    expect(changed.view.getState().revision).toBe(1);
  });

  test('a design deleted elsewhere can be put back, under a new name where the old row is gone', async () => {
    const gone = async (answer: (method: string) => [number, unknown]) => {
      const session = begin(answer);
      session.document.getState().edit({ name: 'Kept here' });
      await rested();
      await calls[0]!.reply(404, {});
      expect(session.view.getState().save).toBe('gone');
      return session;
    };
    const back = await gone(() => [204, null]);
    const putting = back.saving.putBack();
    await settle();
    await settle();
    expect(others.at(-1)).toEqual(['POST', '/api/designs/a']);
    await calls[1]!.reply(200, { revision: 2 });
    expect(await putting).toEqual({ ok: true, id: 'a' });
    expect(back.view.getState().save).toBe('saved');

    const anew = await gone((method) => (method === 'POST' && others.length < 3 ? [404, {}] : [201, { id: 'b' }]));
    const answer = anew.saving.putBack();
    for (let n = 0; n < 6; n++) await settle();
    expect(await answer).toEqual({ ok: true, id: 'b' });
  });

  test('an undo while the conflict is asked does not wedge it', async () => {
    const { document, view, saving } = begin();
    document.getState().edit({ name: 'Mine' });
    await rested();
    await calls[0]!.reply(409, { current: { ...stored, revision: 5, design: { ...design, name: 'Theirs' } } });
    document.temporal.getState().undo();
    void saving.settle('mine');
    await settle();
    // What stands here is what is kept, though it is what was saved before.
    expect(calls[1]!.body).toMatchObject({ revision: 5, design: { name: design.name } });
    await calls[1]!.reply(200, { revision: 6 });
    expect(view.getState()).toMatchObject({ save: 'saved', revision: 6 });
  });

  test('leaving the page sends what waits, and nothing after that', async () => {
    const { document, saving } = begin();
    document.getState().edit({ name: 'A' });
    saving.stop();
    await settle();
    expect(calls).toHaveLength(1);
    document.getState().edit({ name: 'B' });
    await rested(9000);
    expect(calls).toHaveLength(1);
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

  test('a picture older than a moment is marked as not current, and is current again once solved', async () => {
    const document = createDesignStore(design);
    const view = createView(stored, good);
    const stop = startSolving(document, view);
    document.getState().edit({ transformer: { ratedV: 25 } });
    jest.advanceTimersByTime(700);
    expect(view.getState().current).toBe(true);
    document.getState().edit({ transformer: { ratedV: 26 } });
    jest.advanceTimersByTime(200);
    expect(view.getState().current).toBe(false);
    asked[0]!.answer({ ok: true, value: { ...good } });
    await settle();
    // The second edit is still being solved.
    expect(view.getState().current).toBe(false);
    asked[1]!.answer({ ok: true, value: { ...good } });
    await settle();
    expect(view.getState().current).toBe(true);
    stop();
  });

  test('a solver that dies is asked anew once; one that dies again or throws is told, and the next edit is solved', async () => {
    const { SolverGone } = jest.requireMock<{ SolverGone: new () => Error }>('@/workers/client');
    const document = createDesignStore(design);
    const view = createView(stored, good);
    const stop = startSolving(document, view);
    document.getState().edit({ transformer: { ratedV: 25 } });
    asked[0]!.fail(new SolverGone());
    await settle();
    expect(asked).toHaveLength(2);
    asked[1]!.answer({ ok: true, value: { ...good } });
    await settle();
    expect(view.getState()).toMatchObject({ trouble: null, current: true });

    document.getState().edit({ transformer: { ratedV: 26 } });
    asked[2]!.fail(new Error('a fault of ours'));
    await settle();
    expect(view.getState().trouble).toMatch(/a fault of ours/);
    expect(view.getState().current).toBe(false);
    document.getState().edit({ transformer: { ratedV: 27 } });
    asked[3]!.answer({ ok: true, value: { ...good } });
    await settle();
    expect(view.getState()).toMatchObject({ trouble: null, current: true });
    stop();
  });

  test('a solver that hangs is replaced', () => {
    const document = createDesignStore(design);
    const stop = startSolving(document, createView(stored, good));
    document.getState().edit({ transformer: { ratedV: 25 } });
    jest.advanceTimersByTime(11_000);
    expect(replaced).toEqual([]);
    jest.advanceTimersByTime(2000);
    expect(replaced).toEqual(['edit']);
    stop();
  });

  /** What a page puts off until it has nothing else to do, once it has been painted. */
  async function onIdlePage(
    then: (page: { document: ReturnType<typeof createDesignStore>; idle: (() => void)[] }) => Promise<void>,
  ): Promise<number[]> {
    const idle: (() => void)[] = [];
    const calledOff: number[] = [];
    const frames: (() => void)[] = [];
    const before = globalThis.requestAnimationFrame;
    const window = {
      requestIdleCallback: (f: () => void) => idle.push(f),
      cancelIdleCallback: (n: number) => calledOff.push(n),
    };
    Object.assign(globalThis, { window, requestAnimationFrame: (f: () => void) => frames.push(f) });
    try {
      const document = createDesignStore(design);
      const stop = startSolving(document, createView(stored, good));
      frames.splice(0).forEach((f) => f());
      // A message comes in a task of its own.
      jest.useRealTimers();
      await new Promise((resolve) => setTimeout(resolve, 20));
      jest.useFakeTimers();
      expect([asked.length, idle.length]).toEqual([0, 1]);
      await then({ document, idle });
      stop();
    } finally {
      Object.assign(globalThis, { requestAnimationFrame: before });
      delete (globalThis as { window?: unknown }).window;
    }
    return calledOff;
  }

  async function answered(n: number) {
    asked[n]!.answer({ ok: true, value: { ...good } });
    await settle();
  }

  test('once the page is idle the solver is started and warmed up, unless an edit was quicker', async () => {
    const calledOff = await onIdlePage(async ({ document, idle }) => {
      idle[0]!();
      expect(asked).toHaveLength(1);
      await answered(0);
      // Once more: the first time through tells the machine little.
      expect(asked.map((a) => a.design)).toEqual([design, design]);
      document.getState().edit({ transformer: { ratedV: 25 } });
      expect(asked).toHaveLength(3);
      // The hand is there: what is in hand is the last of it.
      await answered(1);
      // Already at an edit: nothing is asked besides.
      idle[0]!();
      expect(asked).toHaveLength(3);
    });
    expect(calledOff).toEqual([1]);
  });

  test('a page nobody edits warms its solver up for a while, not for ever', async () => {
    await onIdlePage(async ({ idle }) => {
      idle[0]!();
      for (let n = 0; n < 100 && asked[n]; n++) await answered(n);
      expect(asked.length).toBeGreaterThan(5);
      expect(asked.length).toBeLessThan(50);
    });
  });

  test('a design that is slow to solve is not gone through again and again for nobody', async () => {
    await onIdlePage(async ({ idle }) => {
      idle[0]!();
      jest.advanceTimersByTime(2000);
      await answered(0);
      expect(asked).toHaveLength(1);
    });
  });

  test('words and readings cost no solving', () => {
    const document = createDesignStore(design);
    const stop = startSolving(document, createView(stored, good));
    document.getState().edit({ name: 'Another name' });
    document.getState().edit({ bench: { meterPct: 1 }, stage: 'retired' });
    document.getState().edit({ log: [{ day: '2026-01-31', what: 'Looked at', why: '', photos: [] }] });
    expect(asked).toHaveLength(0);
    stop();
  });

  test('a reading of the mains is solved anew, as a circumstance of its own; another reading is not', () => {
    const document = createDesignStore(design);
    const stop = startSolving(document, createView(stored, good));
    const read = (point: string, value: number) => {
      const reading = { point, value, mainsV: 230, fedFrom: 'mains', at: '2026-12-31T10:00:00Z' } as const;
      document.getState().edit({ bench: { readings: [...document.getState().design.bench.readings, reading] } });
    };
    read('rail', 30);
    expect(asked).toHaveLength(0);
    read('mains', 262);
    expect(asked).toHaveLength(1);
    const judged = ({ verdicts }: Picture) => verdicts.map((v) => `${v.id} ${v.state} ${v.at}`);
    expect(judged(pictureOf(asked[0]!.design).picture)).not.toEqual(judged(good));
    stop();
  });

  test('whatever a solution depends on is solved anew: of a design only words, readings and ticks are not', () => {
    const words = ['name', 'note', 'log', 'bench', 'picked', 'mainsSide', 'build', 'stage', 'format', 'version'];
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

  test('fixes still sought for a design that moved on make room for the next', () => {
    const document = createDesignStore(design);
    const stop = startSolving(document, createView(stored, good));
    document.getState().edit({ transformer: { ratedV: 24.5 } });
    jest.advanceTimersByTime(500);
    expect([dropped, letGo]).toEqual([[], 0]);
    document.getState().edit({ transformer: { ratedV: 25 } });
    // At once: while the hand moves the processors are the picture's.
    expect(letGo).toBe(1);
    jest.advanceTimersByTime(500);
    // Free for the next, without dropping what another screen searches.
    expect(dropped).toEqual([false]);
    expect(fixJobs.map((j) => j.job)).toEqual([fixJobs[0]!.job, fixJobs[0]!.job + 1]);
    stop();
  });

  test('fixes whose solver ended on the way are sought once more, unless the design moved on', async () => {
    const { SolverGone } = jest.requireMock<{ SolverGone: new () => Error }>('@/workers/client');
    const document = createDesignStore(design);
    const view = createView(stored, good);
    const stop = startSolving(document, view);
    document.getState().edit({ transformer: { ratedV: 24.5 } });
    jest.advanceTimersByTime(500);
    fixJobs[0]!.fail(new SolverGone());
    await settle();
    expect(fixJobs).toHaveLength(2);
    expect(view.getState().fixing).toBe(true);
    document.getState().edit({ transformer: { ratedV: 25 } });
    fixJobs[1]!.fail(new SolverGone());
    await settle();
    expect(fixJobs).toHaveLength(2);
    stop();
  });
});

import { finderPath, namesOf, practiceChoices, seededPuzzle, setPuzzle, takeReading } from '@/core/bench/practice';
import { placeOf, scored, setPuzzles, SET, type FinderStep, type Puzzle } from '@/core/bench/practice-puzzles';
import { faultsToHide } from '@/core/bench/simulated-build';
import { clock, dome, tide } from '../support/demos';

const puzzle = (id: string) => setPuzzle(id)!;

test('fourteen puzzles with a story each: eleven faults their supplies can have, a sound one, and two chosen wrongly', () => {
  expect(setPuzzles()).toHaveLength(14);
  expect(new Set(setPuzzles().map((p) => p.id)).size).toBe(14);
  for (const { id, fault } of SET) {
    const { design, hidden } = puzzle(id);
    expect([id, faultsToHide(design).includes(hidden.fault), hidden.fault]).toEqual([id, true, fault]);
    expect(design.bench.readings).toEqual([]);
  }
  const truths = SET.filter((p) => p.fault === 'none').map((p) => [p.id, puzzle(p.id).truth]);
  expect(truths).toEqual([
    ['nothing', 'none'],
    ['winter', 'bad-choice'],
    ['thumb', 'bad-choice'],
  ]);
  expect(setPuzzle('no such')).toBeNull();
});

test('the checks without power come first, and say truthfully what is so', () => {
  const chime = puzzle('chime');
  const choices = practiceChoices(chime.design);
  const powered = choices.map((c) => c.powered);
  expect(powered).toEqual([...powered].sort());
  // The clock's reservoir stands near 40 V: below what touch takes as dangerous; the valves' does not.
  expect(choices.find((c) => c.id === 'reservoir-idle')!.caution).toBeNull();
  expect(choices.find((c) => c.id === 'secondary-open')!.caution).toContain('Mains');
  expect(practiceChoices(tide).find((c) => c.id === 'reservoir-idle')!.caution).toContain('Hazardous volts');
  // An unregulated supply has no regulator to check.
  expect(practiceChoices(dome).map((c) => c.id)).not.toContain('through');
  expect(takeReading(chime, 'diodes', 1).said).toBe(
    `${placeOf(chime.hidden)} shows nothing either way; the others one way only.`,
  );
  expect(takeReading(puzzle('bang'), 'diodes', 1).said).toContain('nearly nothing both ways');
  expect(takeReading(puzzle('nothing'), 'diodes', 1).said).toContain('Every diode');
  expect(takeReading(puzzle('pen'), 'path', 1).said).toContain('more than copper');
  expect(takeReading(puzzle('clock-hot'), 'setting', 1).said).toContain('Open');
  expect(takeReading(puzzle('nothing'), 'setting', 1).said).toContain('What is printed');
  expect(takeReading(puzzle('pen-through'), 'through', 1).said).toContain('A few ohms');
  expect(takeReading(puzzle('drum'), 'reservoir', 1).said).toContain('At the board nothing');
});

test('a dried can measures what is left of it', () => {
  const { hidden, design } = puzzle('dome-slow');
  const left = design.reservoir.capacitanceF * hidden.factors.capacitance! * hidden.severity[0]!;
  expect(left).toBeLessThan(0.6 * design.reservoir.capacitanceF);
  expect(takeReading(puzzle('dome-slow'), 'reservoir', 1).said).toContain(`${Number((left * 1e6).toPrecision(3))} µF`);
});

test('a powered reading is what stands there, within the meter: a regulator open to the top hands the rail through', () => {
  const hot = puzzle('clock-hot');
  const rail = takeReading(hot, 'reservoir-loaded', 1).value!;
  const out = takeReading(hot, 'output-loaded', 2).value!;
  expect(out).toBeGreaterThan(26);
  expect(rail - out).toBeGreaterThan(1);
  expect(rail - out).toBeLessThan(3);
  // The same reading again is the same, another one has its own noise.
  expect(takeReading(hot, 'reservoir-loaded', 1).value).toBe(rail);
  expect(takeReading(hot, 'reservoir-loaded', 2).value).not.toBe(rail);
  expect(takeReading(puzzle('drum-dead'), 'output-loaded', 1).value).toBeLessThan(0.2);
});

test('a seed is always the same puzzle; your own supply can be the one', () => {
  expect(seededPuzzle(41, null)).toEqual(seededPuzzle(41, null));
  const faults = new Set(Array.from({ length: 60 }, (_, n) => seededPuzzle(n + 1, clock).hidden.fault));
  expect(faults.size).toBeGreaterThan(8);
  expect(faults).toContain('none');
  const mine = seededPuzzle(3, { ...clock, name: 'Mine' });
  expect(mine.design.name).toBe('Mine');
  expect(mine.design.bench.readings).toEqual([]);
});

test('scored by what was read, what was risked, and whether fault and place are named', () => {
  const chime = puzzle('chime');
  const taken = [takeReading(chime, 'diodes', 1), takeReading(chime, 'reservoir-loaded', 2)];
  expect(scored(chime, taken, 'diode-open', placeOf(chime.hidden))).toEqual({
    right: true,
    place: true,
    readings: 2,
    powered: 1,
    minutes: 8,
  });
  expect(scored(chime, taken, 'diode-open', '')).toMatchObject({ right: true, place: false });
  expect(scored(puzzle('pen'), [], 'reservoir-dry', '')).toMatchObject({ right: false, place: null, minutes: 0 });
});

/** All the finder does with a puzzle, and what it names at last. */
function gone(of: Puzzle) {
  const steps: FinderStep[] = [];
  const path = finderPath(of);
  for (;;) {
    const { done, value } = path.next();
    if (done) return { steps, names: value };
    steps.push(value);
  }
}

test('the finder goes through a puzzle as one would, and says what it believed after each step', () => {
  const { steps, names } = gone(puzzle('spare'));
  expect(names).toBe('source-low');
  expect(steps.length).toBeLessThanOrEqual(5);
  // What the supply gives is read before anything can be believed.
  expect(steps[0]).toMatchObject({ believes: 'nothing yet', share: 0 });
  expect(steps.at(-1)!.share).toBeGreaterThan(0.9);
  // A diode is told from its likes by a check without power.
  const chime = gone(puzzle('chime'));
  expect(chime.names).toBe('diode-open');
  expect(chime.steps.at(-1)).toMatchObject({ powered: false, share: 1 });
});

test('a sound box whose drawing was wrong: every reading in its place, and the verdict that fails is what is named', () => {
  const winter = puzzle('winter');
  expect(winter.hidden.fault).toBe('none');
  expect(winter.fails.join(' ')).toMatch(/headroom/i);
  // By day, at the mains as it should be, it holds its 24 V.
  expect(takeReading(winter, 'output-loaded', 1).value).toBeGreaterThan(23);
  expect(namesOf(winter.design)).toContain('bad-choice');
  const { steps, names } = gone(winter);
  expect(names).toBe('bad-choice');
  expect(steps.at(-1)).toMatchObject({ powered: false, said: winter.fails[0] });
  expect(scored(winter, [], 'bad-choice', '')).toMatchObject({ right: true, place: null });
  expect(scored(winter, [], 'none', '').right).toBe(false);
  // Where nothing fails, nothing was chosen wrongly.
  expect(puzzle('nothing').fails).toEqual([]);
  expect(gone(puzzle('nothing')).names).toBe('none');
});

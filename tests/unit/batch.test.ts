import type { Design } from '@/core/design/design';
import { applyPatch } from '@/core/design/design';
import { Batch, wholeOf } from '@/core/judge/builds/batch';
import { FigureSurface, type Readings } from '@/core/judge/builds/figure-surface';
import { Regimes, type Learnt } from '@/core/judge/builds/regimes';
import { allPlaces, seenWith, marginsOf, type Ask, type Seen, type SolvedBuild } from '@/core/judge/builds/solve';
import { drawBuild, placeOf, spreadsOf } from '@/core/judge/builds/spreads';
import { fitOver, quadraticTerms, readSurface, termCount } from '@/core/judge/builds/surface';
import { passFigure, solvedFigure } from '@/core/picture/build-summary';
import { drawnAlone } from '../support/builds';
import { clock, dome, first, logger, pen } from '../support/demos';

/** Even places in some directions, -1 to 1, the same every time. */
const scattered = (count: number, directions: number): number[][] =>
  Array.from({ length: count }, (_, n) =>
    Array.from({ length: directions }, (__, d) => 2 * (((n + 1) * (0.7548776662 + 0.1131 * d)) % 1) - 1),
  );

const termsAt = (place: readonly number[]): Float64Array => {
  const terms = new Float64Array(termCount(place.length));
  quadraticTerms(place, terms);
  return terms;
};

describe('surfaces', () => {
  const places = scattered(60, 3);
  const points = places.map(termsAt);

  test('a quadratic is found again to the last digits, at places it was not shown', () => {
    const law = ([a, b, c]: readonly number[]) => 7 + 3 * a! - 2 * b! + 0.5 * a! * c! - 4 * c! * c! + b! * b!;
    const fit = fitOver(points.slice(0, 40))!;
    const surface = fit(Float64Array.from(places, law));
    places.slice(40).forEach((p, k) => expect(readSurface(surface, points[40 + k]!)).toBeCloseTo(law(p), 6));
    expect(termCount(8)).toBe(45);
  });

  test('too few places do not determine one', () => {
    expect(fitOver([new Float64Array(3)])).toBeNull();
  });

  const into = (): Readings => ({
    margins: new Float64Array(1),
    marginOff: new Float64Array(1),
    ranks: new Float64Array(1),
    rankOff: new Float64Array(1),
  });
  const over = (value: (p: readonly number[]) => number, limit: number, wanted: (p: readonly number[]) => number) => {
    const values = Float64Array.from(places, value);
    const margins = values.map((v) => limit - v);
    const ranks = margins.map((m, k) => m / wanted(places[k]!));
    return new FigureSurface({ points, fit: fitOver(points.slice(0, 40))! }, { values, margins, ranks });
  };

  test('a share of what dwindles is read as exactly as what dwindles itself', () => {
    const left = ([a, b]: readonly number[]) => 1 + 0.9 * a! * b!;
    const surface = over(
      (p) => 100 / left(p),
      100,
      () => 20,
    );
    const read = into();
    surface.read(termsAt([0.8, -0.9, 0]), 0, read);
    const real = 100 - 100 / left([0.8, -0.9]);
    expect(read.margins[0]! / real).toBeCloseTo(1, 6);
    expect(read.ranks[0]! / (real / 20)).toBeCloseTo(1, 6);
  });

  test('where nothing is left of what dwindles, or less, it may be anything', () => {
    const surface = over(
      ([a, b]) => 100 / (1 + 0.9 * a! * b!),
      100,
      () => 20,
    );
    const read = into();
    surface.read(termsAt([1.5, -1.5, 0]), 0, read);
    expect(read.marginOff[0]).toBe(Infinity);
    expect(read.rankOff[0]).toBe(Infinity);
  });

  test('what it missed where it says about as much is what it may be off by, three times over', () => {
    // Even below nothing; above it bends more than a quadratic can.
    const law = ([a]: readonly number[]) => a! + (a! > 0.5 ? 0.3 * Math.sin(30 * a!) : 0);
    const surface = over(law, 0, () => 1);
    const read = into();
    surface.read(termsAt([-0.6, 0, 0]), 0, read);
    const calm = read.marginOff[0]!;
    surface.read(termsAt([0.8, 0, 0]), 0, read);
    expect(calm).toBeLessThan(read.marginOff[0]!);
    const missed = places.map((p, k) => {
      surface.read(points[k]!, 0, read);
      return Math.abs(read.margins[0]! + law(p)) / read.marginOff[0]!;
    });
    expect(Math.max(...missed)).toBeCloseTo(1 / 3, 6);
  });

  test('a wanted margin that changes has a surface of its own', () => {
    const surface = over(
      ([a]) => 5 - a!,
      9,
      ([a]) => 2 / (1 + 0.1 * a!),
    );
    const read = into();
    surface.read(termsAt([0.5, 0, 0]), 0, read);
    expect(read.margins[0]!).toBeCloseTo(4.5, 6);
    expect(read.ranks[0]!).toBeCloseTo(4.5 * 0.525, 6);
  });
});

describe('what can be read of a circumstance', () => {
  const places = scattered(240, 2);
  /** A regulator that lets go below nothing: there its output follows. */
  const seen = ([a, b]: readonly number[]): Seen => {
    const distance = a! + 0.2 * b!;
    const margin = 1 + 0.3 * b! + Math.min(0, 5 * distance);
    const one = (v: number) => Float64Array.of(v, NaN);
    return {
      values: one(3 - margin),
      margins: one(margin),
      ranks: one(2 * margin),
      edges: [{ distance, beyond: distance >= 0 }],
      plain: true,
    };
  };
  const learnt = places.map((p): Learnt => ({ terms: termsAt(p), seen: seen(p) }));

  test('on either side of an edge as on that side, right at it not at all', () => {
    const regimes = Regimes.of(learnt)!;
    for (const p of [
      [0.7, 0.3],
      [-0.7, 0.3],
      [0.3, -0.8],
    ]) {
      const read = regimes.read(termsAt(p))!;
      expect(read.margins[0]!).toBeCloseTo(seen(p).margins[0]!, 6);
      expect(read.ranks[0]!).toBeCloseTo(2 * seen(p).margins[0]!, 6);
      expect(read.margins[1]).toBeNaN();
    }
    expect(regimes.read(termsAt([0, 0]))).toBeNull();
  });

  test('where too few builds lie there is nothing to read', () => {
    const few = learnt.filter(({ seen: s }, n) => s.edges[0]!.beyond || n % 12 === 0);
    const regimes = Regimes.of(few)!;
    expect(regimes.read(termsAt([0.7, 0.3]))).not.toBeNull();
    expect(regimes.read(termsAt([-0.7, 0.3]))).toBeNull();
  });

  test('what jumps, or has a meaning in one build and none in another, is not read', () => {
    const with_ = (change: Partial<Seen>) => [
      ...learnt.slice(1),
      { ...learnt[0]!, seen: { ...learnt[0]!.seen, ...change } },
    ];
    expect(Regimes.of(with_({ plain: false }))).toBeNull();
    expect(Regimes.of(with_({ margins: Float64Array.of(NaN, NaN) }))).toBeNull();
    expect(Regimes.of(with_({ edges: [] }))).toBeNull();
    expect(Regimes.of([])).toBeNull();
  });
});

describe('a batch', () => {
  /** A supply that is not solved but has its margins by a law of its factors. */
  const told =
    (design: Design, batch: Batch, law: (factors: readonly number[], place: number, check: number) => number) =>
    ({ build, places }: Ask): SolvedBuild => {
      const factors = drawBuild(spreadsOf(design), 1, build);
      const size = batch.plan.checks.length * 2;
      return {
        build,
        seen: batch.plan.conditions.map((_, place): Seen | undefined => {
          if (!places.includes(place)) return undefined;
          const margins = new Float64Array(size).fill(NaN);
          batch.plan.checks.forEach((__, check) => (margins[2 * check] = law(factors, place, check)));
          return { values: margins.map((m) => 50 - m), margins, ranks: margins.slice(), edges: [], plain: true };
        }),
      };
    };
  const drawn = (batch: Batch, solve: (ask: Ask) => SolvedBuild, shuffle = (answers: SolvedBuild[]) => answers) => {
    const goes: Ask[][] = [];
    for (let asks = batch.first(); asks.length > 0; asks = batch.next()) {
      goes.push(asks);
      batch.take(shuffle(asks.map(solve)));
    }
    return goes;
  };
  const even = (factors: readonly number[], place: number, check: number) =>
    10 * (factors[0]! - 1) * (check + 1) + (factors[2]! - 1) * (factors[1]! - 1) + place + 0.1;

  test('few builds are all solved whole', () => {
    const batch = new Batch(dome, 1, 240);
    const goes = drawn(batch, told(dome, batch, even));
    expect(goes.map((g) => g.length)).toEqual([240]);
    expect(goes[0]!.every((a) => a.places.length === batch.plan.conditions.length)).toBe(true);
    expect(batch.found().reading).toMatchObject({ solved: 240 * batch.plan.conditions.length });
    expect(passFigure(batch.summary(), null).source).toMatch(/^Every build solved/);
  });

  test('of thousands those are solved whose verdict a reading cannot know, and the ends of every margin', () => {
    const batch = new Batch(dome, 1, 3000);
    const solve = told(dome, batch, even);
    const goes = drawn(batch, solve);
    expect(goes[0]).toHaveLength(wholeOf(dome, 3000));
    const { builds, reading } = batch.found();
    expect(reading.solved).toBeLessThan(0.12 * reading.circumstances);
    const places = allPlaces(batch.plan);
    const real = builds.map((_, build) => marginsOf(batch.plan, solve({ build, places }).seen!));
    batch.plan.checks.forEach((_, check) => {
      const wrong = builds.filter((b, n) => {
        const [said, is] = [b.margins![check]!, real[n]![check]!];
        return said >= 0 !== is >= 0 || Math.abs(said - is) > reading.within[check]! + 1e-12;
      });
      expect(wrong).toEqual([]);
      expect(Math.min(...builds.map((b) => b.margins![check]!))).toBe(Math.min(...real.map((m) => m[check]!)));
      expect(Math.max(...builds.map((b) => b.margins![check]!))).toBe(Math.max(...real.map((m) => m[check]!)));
    });
    const figure = passFigure(batch.summary(), batch.summary().checks[0]!);
    expect(figure.inputs.find((i) => i.label === 'of them solved')!.value).toBe(reading.solved);
    expect(figure.inputs.find((i) => i.label === 'read, it may be off by')!.value).toBe(reading.within[0]);
    const solves = solvedFigure(batch.summary());
    expect(solves.value).toBe(reading.solved);
    expect(solves.assumes.join(' ')).toMatch(/read off quadratics.*3 times/);
  });

  test('whoever answers first, it comes to the same', () => {
    const [a, b] = [new Batch(dome, 1, 2000), new Batch(dome, 1, 2000)];
    drawn(a, told(dome, a, even));
    drawn(b, told(dome, b, even), (answers) => [...answers].reverse());
    expect(b.summary()).toEqual(a.summary());
  });

  test('what no quadratic comes near is solved in every build where it decides', () => {
    const batch = new Batch(dome, 1, 2000);
    const rough = (factors: readonly number[], place: number, check: number) =>
      place === 0 && check === 0 ? 5 + Math.sin(400 * factors[0]!) : 20 + even(factors, place, check);
    const goes = drawn(batch, told(dome, batch, rough));
    const asked = new Set(goes.flat().flatMap((a) => (a.places.includes(0) ? [a.build] : [])));
    expect(asked.size).toBe(2000);
    const others = goes
      .slice(1)
      .flat()
      .filter((a) => a.places.some((p) => p !== 0));
    expect(others.length).toBeLessThan(120);
  });

  test('where a kind of build is too rare among the first to be read, some of it teach how to read the others', () => {
    const batch = new Batch(dome, 1, 4000);
    const solve = told(dome, batch, even);
    // A quarter of a triangle lies beyond 0.3 of its half width.
    const edge = (n: number) => placeOf(spreadsOf(dome), drawBuild(spreadsOf(dome), 1, n))[0]! + 0.3;
    const standing = (ask: Ask): SolvedBuild => {
      const { build, seen } = solve(ask);
      const edges = [{ distance: edge(build), beyond: edge(build) >= 0 }];
      return { build, seen: seen!.map((s) => s && { ...s, edges }) };
    };
    const goes = drawn(batch, standing);
    expect(goes).toHaveLength(3);
    const rare = Array.from({ length: 4000 }, (_, n) => n).filter((n) => edge(n) < 0);
    expect(rare.length).toBeGreaterThan(600);
    expect(goes[1]!.length).toBeLessThanOrEqual(400);
    const solved = new Set(goes.flat().map((a) => a.build));
    expect(rare.filter((n) => solved.has(n)).length).toBeLessThan(0.75 * rare.length);
  });

  test('one build without an answer and none is foretold; one later counts as that', () => {
    const batch = new Batch(dome, 1, 400);
    const solve = told(dome, batch, even);
    drawn(batch, (ask) => (ask.build === 7 ? { build: 7, seen: null } : solve(ask)));
    expect(batch.summary()).toMatchObject({ builds: 400, unsolved: 1 });
    expect(batch.found().reading.solved).toBe(400 * batch.plan.conditions.length);
    const later = new Batch(dome, 1, 2000);
    const fails = (ask: Ask) => (ask.build >= 200 ? { build: ask.build, seen: null } : told(dome, later, even)(ask));
    const asked = new Set(
      drawn(later, fails)
        .slice(1)
        .flat()
        .map((a) => a.build),
    );
    expect(asked.size).toBeGreaterThan(3);
    expect(later.summary().unsolved).toBe(asked.size);
  });

  /** Real circuits: regulators that let go, a transistor beyond its safe area, a battery with two outputs. */
  test.each([
    ['the motor', dome, 500],
    ['the clock, some letting go', clock, 560],
    ['the pen, letting go', pen, 560],
    ['the bench supply, hopelessly hot', first, 560],
    ['the logger', logger, 450],
  ])('%s: what is read is what is solved, and no verdict differs', (_, design, count) => {
    const batch = drawnAlone(design, 1, count);
    const { builds, reading } = batch.found();
    const { plan } = batch;
    const whole = wholeOf(design, count);
    expect(whole).toBeLessThan(count);
    expect(reading.solved).toBeLessThan(reading.circumstances);
    let read = 0;
    for (let n = whole; n < count; n += 3) {
      const real = marginsOf(plan, seenWith(design, plan, builds[n]!.factors, allPlaces(plan)));
      plan.checks.forEach(({ id }, check) => {
        const off = Math.abs(builds[n]!.margins![check]! - real[check]!);
        expect([id, n, builds[n]!.margins![check]! >= 0]).toEqual([id, n, real[check]! >= 0]);
        expect([id, n, off <= reading.within[check]! + 2e-6 * Math.abs(real[check]!)]).toEqual([id, n, true]);
        if (off > 0) read++;
      });
    }
    expect(read).toBeGreaterThan(100);
  });

  test('a place in the spreads is by ratios, from end to end; what does not spread has none', () => {
    const spreads = spreadsOf(clock);
    expect(
      placeOf(
        spreads,
        spreads.map((s) => s.low),
      ),
    ).toEqual(spreads.map(() => -1));
    placeOf(
      spreads,
      spreads.map((s) => s.high),
    ).forEach((p) => expect(p).toBeCloseTo(1, 12));
    placeOf(
      spreads,
      spreads.map((s) => Math.sqrt(s.low * s.high)),
    ).forEach((p) => expect(p).toBeCloseTo(0, 12));
    const exact = applyPatch(clock, { reservoir: { tolerancePct: 0 } });
    expect(
      placeOf(
        spreadsOf(exact),
        spreadsOf(exact).map(() => 1),
      ),
    ).toHaveLength(spreads.length - 1);
    // More than all of it off: ratios have no meaning then.
    const [wide] = placeOf([{ id: 'copper', label: '', low: -0.2, high: 2.2 }], [1.6]);
    expect(wide).toBeCloseTo(0.5, 12);
  });
});

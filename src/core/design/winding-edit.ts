import type { Design, Patch } from './design';

/**
 * Another voltage on the winding. One being wound by hand gets turns in proportion; one known from readings would be
 * another transformer, known by its nameplate only.
 */
export function withWindingVolts({ transformer }: Design, ratedV: number): Patch {
  const { source } = transformer;
  if (source.kind !== 'wound') return { transformer: { ratedV, source: { kind: 'plate' } } };
  const secondaryTurns = Math.max(1, Math.round((source.plan.secondaryTurns * ratedV) / transformer.ratedV));
  return { transformer: { ratedV, source: { kind: 'wound', plan: { ...source.plan, secondaryTurns } } } };
}

/** Another size: a transformer to be bought, known by its nameplate. A regulation given for the old one goes with it. */
export function withTransformerSize(ratedVA: number): Patch {
  return { transformer: { ratedVA, regulationPct: null, source: { kind: 'plate' } } };
}

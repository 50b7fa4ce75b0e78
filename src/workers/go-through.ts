import type { Answer } from './answer';
import { callback, type RemoteSolver } from './client';
import type { AboutOf, EndOf, ItemOf, Kind, PartOf } from './long-work';
import { asHand, DROPPED, newWork, UNKNOWN, type Done } from './piece';

/**
 * Has one thread go through a long work by itself.
 * @param tell what came on the way, each twentieth of a second; where left out all of it is in the answer
 * @returns null where it was dropped, or a newer one took its place
 */
export async function goThrough<K extends Kind>(
  solver: RemoteSolver,
  kind: K,
  about: AboutOf<K>,
  { items = [], tell }: { items?: readonly ItemOf<K>[]; tell?: (parts: PartOf<K>[]) => void } = {},
): Promise<Answer<Pick<Done<K>, 'parts' | 'end'> | null>> {
  const piece = { work: newWork(), kind, about, items, told: undefined as never };
  const went = await asHand(solver).go<K>(piece, tell && callback(tell));
  if (!went.ok) return went;
  return { ok: true, value: went.value === DROPPED || went.value === UNKNOWN ? null : went.value };
}

/** What a work comes to that nothing takes the place of. */
export async function endOf<K extends Kind>(
  solver: RemoteSolver,
  kind: K,
  about: AboutOf<K>,
): Promise<Answer<EndOf<K>>> {
  const went = await goThrough(solver, kind, about);
  if (!went.ok) return went;
  return went.value
    ? { ok: true, value: went.value.end }
    : { ok: false, error: 'It was ended before it had an answer.' };
}

import type { NetPart } from './netlist';

/** References as a list says them: 'C1–C3', 'R2, R5'. */
export function referencesOf(parts: readonly Pick<NetPart, 'ref'>[]): string {
  const runs: { letter: string; from: number; to: number }[] = [];
  for (const { ref } of parts) {
    const [, letter, digits] = /^(\D+)(\d+)$/.exec(ref)!;
    const number = Number(digits);
    const last = runs.at(-1);
    if (last && last.letter === letter && last.to === number - 1) last.to = number;
    else runs.push({ letter: letter!, from: number, to: number });
  }
  return runs
    .map(({ letter, from, to }) => (from === to ? `${letter}${from}` : `${letter}${from}–${letter}${to}`))
    .join(', ');
}

/** The single references of such a list. */
export function referencesIn(list: string): string[] {
  return list
    .split(', ')
    .filter(Boolean)
    .flatMap((run) => {
      const [, letter, from, to] = /^(\D+)(\d+)(?:–\D+(\d+))?$/.exec(run) ?? [];
      if (letter === undefined) return [];
      return Array.from({ length: Number(to ?? from) - Number(from) + 1 }, (_, n) => `${letter}${Number(from) + n}`);
    });
}

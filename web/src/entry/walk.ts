/** The walk from station to station, in the order of the round. */
import type { Station } from '../api/types';

/** The next station without a reading, after `current` and then from the start; null once all have one. */
export function nextOpen(
  round: readonly Station[],
  current: string | null,
  taken: ReadonlySet<string>,
): Station | null {
  const from = round.findIndex((s) => s.id === current) + 1;
  const ahead = [...round.slice(from), ...round.slice(0, from)];
  return ahead.find((s) => !s.read_by && !taken.has(s.id) && s.id !== current) ?? null;
}

/** The neighbour in the round, whether read or not. */
export function neighbour(round: readonly Station[], current: string | null, step: 1 | -1): Station | null {
  if (!round.length) return null;
  const at = round.findIndex((s) => s.id === current);
  return round[(at + step + round.length) % round.length] ?? null;
}

/** Two changes to what was drawn, one made while the other was still being answered: both of them, in one. */

type Named = { id: string };
type Keyed = Record<string, unknown>;

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
const isKeyed = (x: unknown): x is Keyed => typeof x === 'object' && x !== null && !Array.isArray(x);
const areNamed = (x: unknown): x is Named[] =>
  Array.isArray(x) && x.every((i) => isKeyed(i) && typeof i['id'] === 'string');

/** What a form made (`mine`) of what it was drawn from (`was`), where that is `now` something else.
 *  Where both changed the same value, the form's counts: it is the later one. */
export function merged<T>(was: T, mine: T, now: T): T {
  if (same(mine, was)) return now;
  if (same(now, was)) return mine;
  if (isKeyed(was) && isKeyed(mine) && isKeyed(now)) {
    const all: Keyed = {};
    for (const key of new Set([...Object.keys(now), ...Object.keys(mine)])) {
      const value = merged(was[key], mine[key], now[key]);
      if (value !== undefined) all[key] = value;
    }
    return all as T;
  }
  if (areNamed(was) && areNamed(mine) && areNamed(now)) {
    const of = (list: Named[], id: string) => list.find((i) => i.id === id);
    const mineToo = mine
      .filter((m) => of(now, m.id) ?? !of(was, m.id))
      .map((m) => {
        const [w, n] = [of(was, m.id), of(now, m.id)];
        return w && n ? merged(w, m, n) : m;
      });
    return [...mineToo, ...now.filter((n) => !of(was, n.id) && !of(mine, n.id))] as T;
  }
  if (Array.isArray(was) && Array.isArray(mine) && Array.isArray(now))
    if (was.length === mine.length && was.length === now.length)
      return mine.map((m, i) => merged(was[i], m, now[i]) as unknown) as T;
  return mine;
}

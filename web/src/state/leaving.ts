/** What is not stored yet when the window is closed or hidden: the browser asks first, and what was put off is hurried. */

const onTheWay = new Set<Promise<unknown>>();
const putOff = new Map<object, () => void>();
const others = new Set<() => boolean>();

/** A change is on its way to the server until this is settled. */
export function isOnTheWay<T>(work: Promise<T>): Promise<T> {
  const done = work.catch(() => undefined).finally(() => onTheWay.delete(done));
  onTheWay.add(done);
  return work;
}

/** Something is stored a little later; `now` stores it at once. Ends with `isStored`. */
export function isPutOff(whose: object, now: () => void): void {
  putOff.set(whose, now);
}

/** The browser asks before it closes the window while this is so. */
export function asksWhile(unkept: () => boolean): void {
  others.add(unkept);
}

export function isStored(whose: object): void {
  putOff.delete(whose);
}

function hurry(): void {
  for (const now of putOff.values()) now();
}

addEventListener('beforeunload', (leaving) => {
  hurry();
  if (onTheWay.size || putOff.size || [...others].some((unkept) => unkept())) leaving.preventDefault();
});
document.addEventListener('visibilitychange', () => {
  if (document.visibilityState === 'hidden') hurry();
});

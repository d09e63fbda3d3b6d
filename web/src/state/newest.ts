/** Of several askings of one thing only the newest is listened to: an answer that comes late tells of what was. */
export function newest(): <T>(asked: Promise<T>) => Promise<T | undefined> {
  let last = 0;
  return async (asked) => {
    const mine = ++last;
    const answer = await asked;
    return mine === last ? answer : undefined;
  };
}

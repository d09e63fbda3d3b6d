/** Of several askings of one thing only the newest is listened to: what comes late, an answer or none, tells of what was. */
export function newest(): <T>(asked: Promise<T>) => Promise<T | undefined> {
  let last = 0;
  return async (asked) => {
    const mine = ++last;
    try {
      const answer = await asked;
      return mine === last ? answer : undefined;
    } catch (fault) {
      if (mine === last) throw fault;
      return undefined;
    }
  };
}

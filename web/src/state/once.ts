/** What is pressed again while it is under way is done once: a slow line would otherwise make two jobs of one. */
export function once<A extends unknown[]>(
  work: (...args: A) => Promise<void>,
): (...args: A) => Promise<void> {
  let busy = false;
  return async (...args) => {
    if (busy) return;
    busy = true;
    try {
      await work(...args);
    } finally {
      busy = false;
    }
  };
}

/** What is being fetched or worked out: nobody looks at an empty page, or at figures of before, without being told. */

/** From so long on it is told that something is under way, ms: what comes sooner would only flicker. */
export const TOLD_MS = 500;
/** From so long on it is told that it takes long, ms. */
export const LONG_MS = 6000;

export class UnderWay {
  #asked = new Set<symbol>();
  /** `still` before anything is told and after all has come. */
  told = $state<'still' | 'under way' | 'long'>('still');
  #soon: ReturnType<typeof setTimeout> | undefined;
  #later: ReturnType<typeof setTimeout> | undefined;

  /** Whatever comes of what is asked for, it is under way until then. */
  watch<T>(asked: Promise<T>): Promise<T> {
    const one = Symbol();
    if (!this.#asked.size) {
      this.#soon = setTimeout(() => (this.told = 'under way'), TOLD_MS);
      this.#later = setTimeout(() => (this.told = 'long'), LONG_MS);
    }
    this.#asked.add(one);
    const done = () => {
      this.#asked.delete(one);
      if (this.#asked.size) return;
      clearTimeout(this.#soon);
      clearTimeout(this.#later);
      this.told = 'still';
    };
    asked.then(done, done);
    return asked;
  }
}

export const underWay = new UnderWay();

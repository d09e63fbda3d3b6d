/** What is being fetched or worked out: nobody looks at an empty page, or at figures of before, without being told. */

/** From so long on it is told that something is under way, ms: what comes sooner would only flicker. */
export const TOLD_MS = 500;
/** From so long on it is told that it takes long, ms. */
export const LONG_MS = 6000;

export class UnderWay {
  #asked = 0;
  /** `still` before anything is told and after all has come. */
  told = $state<'still' | 'under way' | 'long'>('still');
  #soon: ReturnType<typeof setTimeout> | undefined;
  #later: ReturnType<typeof setTimeout> | undefined;

  /** Whatever comes of what is asked for, it is under way until then. */
  watch<T>(asked: Promise<T>): Promise<T> {
    if (!this.#asked) {
      this.#soon = setTimeout(() => (this.told = 'under way'), TOLD_MS);
      this.#later = setTimeout(() => (this.told = 'long'), LONG_MS);
    }
    this.#asked += 1;
    const done = () => {
      this.#asked -= 1;
      if (this.#asked) return;
      clearTimeout(this.#soon);
      clearTimeout(this.#later);
      this.told = 'still';
    };
    asked.then(done, done);
    return asked;
  }
}

export const underWay = new UnderWay();

/** How far the stages of the place in view are: asked for a while after the last change, so that it holds up no answer. */
import { calls } from '../api/calls';
import type { StageAt } from '../api/types';
import { newest } from './newest';
import { remembered } from './store';

const WHILE_MS = 1500;

class Planned {
  stages = $state.raw<readonly StageAt[]>([]);
  #of = '';
  readonly #listen = newest();

  /** Look at a place after a while; returns what calls that off. */
  look(job: string, place: string): () => void {
    const of = `${job} ${place}`;
    if (of !== this.#of) this.stages = [];
    this.#of = of;
    const timer = setTimeout(() => void this.#ask(of, job, place), WHILE_MS);
    return () => clearTimeout(timer);
  }

  async #ask(of: string, job: string, place: string): Promise<void> {
    try {
      const found = await this.#listen(remembered(`planned ${of}`, () => calls.planned(job, place)));
      if (found && of === this.#of) this.stages = found;
    } catch {
      // the page itself says what is wrong; the bar then marks nothing
    }
  }
}

export const planned = new Planned();

/** The practice that is open, if the place in view is one: how far it is, and the simulated instruments of the page. */
import { calls } from '../api/calls';
import type { Practised } from '../api/types';
import { newest } from './newest';
import { notices } from './notices.svelte';

/** What the page in view can do with simulated instruments. */
export interface Tools {
  here: () => Promise<void>;
  rest: () => Promise<void>;
}
export const LESSONS = ['read', 'rest', 'again', 'fit', 'list', 'truth'] as const;
export type Lesson = (typeof LESSONS)[number];
const SEEN = 'wobble practice ';

function kept(job: string): { seen: Lesson[]; left: boolean } {
  try {
    return JSON.parse(localStorage.getItem(SEEN + job) ?? '') as { seen: Lesson[]; left: boolean };
  } catch {
    return { seen: [], left: false };
  }
}

class Practising {
  told = $state.raw<Practised | null>(null);
  tools = $state.raw<Tools | null>(null);
  left = $state(false);
  #seen = $state.raw<Lesson[]>([]);
  #job = '';
  #place = '';
  readonly #listen = newest();

  /** The lesson one is at: what the readings do not show yet, then what the user has not seen yet; null at the end. */
  readonly lesson = $derived.by<Lesson | null>(() => {
    if (!this.told) return null;
    if (this.told.next !== 'fit') return this.told.next;
    return LESSONS.slice(3).find((l) => !this.#seen.includes(l)) ?? null;
  });

  async open(job: string, place: string): Promise<void> {
    if (job !== this.#job || place !== this.#place) this.told = null;
    [this.#job, this.#place] = [job, place];
    ({ seen: this.#seen, left: this.left } = kept(job));
    try {
      const told = await this.#listen(calls.practice(job, place));
      if (told) this.told = told;
    } catch (fault) {
      notices.refused(fault);
    }
  }

  saw(lesson: Lesson): void {
    this.#seen = [...new Set([...this.#seen, lesson])];
    this.#keep();
  }

  leave(left: boolean): void {
    this.left = left;
    this.#keep();
  }

  #keep(): void {
    try {
      localStorage.setItem(SEEN + this.#job, JSON.stringify({ seen: this.#seen, left: this.left }));
    } catch {
      // a full device begins the last lessons again
    }
  }
}

export const practising = new Practising();

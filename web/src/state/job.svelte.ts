/** The job in view, as the server has it. */
import { calls } from '../api/calls';
import { Refused } from '../api/client';
import type { Place, Instrument, LengthUnit, ShimKit, StoredJob } from '../api/types';
import { notices } from './notices.svelte';
import { remembered } from './store';

class OpenJob {
  stored = $state.raw<StoredJob | null>(null);
  missing = $state(false);
  #last: Promise<boolean> = Promise.resolve(true);

  async load(id: string): Promise<void> {
    if (this.stored?.id !== id) this.stored = null;
    this.missing = false;
    try {
      this.stored = await remembered(`job ${id}`, () => calls.job(id));
    } catch (fault) {
      if (fault instanceof Refused && fault.status === 404) this.missing = true;
      else notices.refused(fault);
    }
  }

  get units(): LengthUnit {
    return this.stored?.job.units ?? 'mm';
  }

  place(key: string): Place | undefined {
    return this.stored?.job.places.find((b) => b.id === key);
  }

  /** Send a change made from the revision in view; one from elsewhere is shown and nothing is overwritten.
   *  Changes go one after the other, since each is made from the revision that the one before it leaves. */
  change(send: (id: string, revision: number) => Promise<StoredJob>): Promise<boolean> {
    this.#last = this.#last.then(() => this.#change(send));
    return this.#last;
  }

  async #change(send: (id: string, revision: number) => Promise<StoredJob>): Promise<boolean> {
    if (!this.stored) return false;
    try {
      this.stored = await send(this.stored.id, this.stored.revision);
      return true;
    } catch (fault) {
      notices.refused(fault);
      if (fault instanceof Refused && fault.status === 409) await this.load(this.stored.id);
      return false;
    }
  }

  /** The revision after a call that answers with nothing else. */
  at(revision: number): void {
    if (this.stored) this.stored = { ...this.stored, revision };
  }

  putAbout(about: { name: string; address: string; note: string; units: LengthUnit }): Promise<boolean> {
    return this.change((id, revision) => calls.putAbout(id, { revision, ...about }));
  }

  putKit(kit: ShimKit): Promise<boolean> {
    return this.change((id, revision) => calls.putKit(id, revision, kit));
  }

  putInstruments(instruments: Instrument[]): Promise<boolean> {
    return this.change((id, revision) => calls.putInstruments(id, revision, instruments));
  }

  /** What is decided for a place; its facts have a queue of their own. */
  putPlace(place: Place): Promise<boolean> {
    return this.change((id, revision) => calls.putPlace(id, revision, place));
  }
}

export const open = new OpenJob();

/** Readings typed and not yet with the server: kept on the device, sent in order, once each by their own ids. */
import { calls } from '../api/calls';
import { Refused } from '../api/client';
import type { Reading } from '../api/types';
import { notices } from './notices.svelte';
import { store } from './store';

interface Kept {
  id: string;
  user: string;
  job: string;
  bay: string;
  reading: Reading;
}

const RETRY_MS = 4000;

class Waiting {
  all = $state.raw<Kept[]>([]);
  #sending: Promise<void> | null = null;
  #user = '';
  #told: ((job: string, revision: number) => void)[] = [];

  /** Take up what an earlier visit left behind. */
  async open(user: string): Promise<void> {
    this.#user = user;
    // where the browser keeps nothing, what is typed lives as long as the page
    const kept = ((await (await store())?.getAll('readings')) ?? []) as Kept[];
    this.all = kept.filter((k) => k.user === user);
    void this.send();
  }

  /** Be told when readings of a job have arrived. */
  onArrival(tell: (job: string, revision: number) => void): () => void {
    this.#told.push(tell);
    return () => void (this.#told = this.#told.filter((t) => t !== tell));
  }

  count(job: string, bay: string): number {
    return this.all.filter((k) => k.job === job && k.bay === bay).length;
  }

  of(job: string, bay: string): Reading[] {
    return this.all.filter((k) => k.job === job && k.bay === bay).map((k) => k.reading);
  }

  /** Keep a reading here, then send it. */
  async keep(job: string, bay: string, reading: Reading): Promise<void> {
    const kept = { id: reading.id, user: this.#user, job, bay, reading };
    this.all = [...this.all, kept];
    await (await store())?.put('readings', kept);
    await this.send();
  }

  /** Take a reading back that has not left the device. */
  async take(id: string): Promise<boolean> {
    await this.#sending;
    if (!this.all.some((k) => k.id === id)) return false;
    await this.#drop([id]);
    return true;
  }

  send(): Promise<void> {
    this.#sending ??= this.#sendAll().finally(() => (this.#sending = null));
    return this.#sending;
  }

  /** Bay by bay; a reading that is refused stays on the device and holds up no other. */
  async #sendAll(): Promise<void> {
    const refused = new Set<string>();
    for (;;) {
      const first = this.all.find((k) => !refused.has(k.id));
      if (!first) return;
      const batch = this.all.filter((k) => k.job === first.job && k.bay === first.bay && !refused.has(k.id));
      try {
        await this.#sendBatch(batch);
      } catch (fault) {
        if (!(fault instanceof Refused)) throw fault;
        if (fault.passing) {
          setTimeout(() => void this.send(), RETRY_MS);
          return;
        }
        if (batch.length > 1) {
          await this.#sendSingly(batch, refused);
        } else {
          refused.add(first.id);
          notices.refused(fault);
        }
      }
    }
  }

  async #sendBatch(batch: Kept[]): Promise<void> {
    const { job, bay } = batch[0]!;
    const kept = await calls.addReadings(
      job,
      bay,
      batch.map((k) => k.reading),
    );
    await this.#drop(batch.map((k) => k.id));
    this.#told.forEach((tell) => tell(job, kept.revision));
  }

  async #sendSingly(batch: Kept[], refused: Set<string>): Promise<void> {
    for (const kept of batch) {
      try {
        await this.#sendBatch([kept]);
      } catch (fault) {
        if (!(fault instanceof Refused) || fault.passing) throw fault;
        refused.add(kept.id);
        notices.refused(fault);
      }
    }
  }

  async #drop(ids: string[]): Promise<void> {
    const db = await store();
    for (const id of ids) await db?.delete('readings', id);
    this.all = this.all.filter((k) => !ids.includes(k.id));
  }
}

export const waiting = new Waiting();
addEventListener('online', () => void waiting.send());

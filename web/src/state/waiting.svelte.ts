/** What was found out and is not yet with the server: facts kept on the device, sent in order, once each by their own
 *  ids. What the server has in another form is held as a conflict until the user has seen both. */
import { calls } from '../api/calls';
import { Refused } from '../api/client';
import type { Fact } from '../api/types';
import { newId } from '../entry/ids';
import { isDetection, isNote, isObstacle, isReading } from '../entry/facts';
import { notices } from './notices.svelte';
import { store } from './store';

export interface Kept {
  /** The fact's own. */
  id: string;
  user: string;
  job: string;
  place: string;
  /** When it was kept, ms: the device's store gives things back by their ids. */
  kept: number;
  fact: Fact;
}

/** Something kept here that the server has in another form. */
export interface Conflict {
  kept: Kept;
  theirs: Record<string, unknown>;
}

const RETRY_MS = 4000;
/** The most facts in one call. */
const MOST_SENT = 500;

class Waiting {
  all = $state.raw<Kept[]>([]);
  conflicts = $state.raw<Conflict[]>([]);
  #sending: Promise<void> | null = null;
  #user = '';
  #last = 0;
  #told: ((job: string, revision: number) => void)[] = [];

  /** Take up what an earlier visit left behind. */
  async open(user: string): Promise<void> {
    this.#user = user;
    // where the browser keeps nothing, what is typed lives as long as the page
    const kept = ((await (await store())?.getAll('facts')) ?? []) as Kept[];
    this.all = kept.filter((k) => k.user === user).toSorted((a, b) => a.kept - b.kept);
    this.conflicts = [];
    void this.send();
  }

  /** Be told when something of a job has arrived. */
  onArrival(tell: (job: string, revision: number) => void): () => void {
    this.#told.push(tell);
    return () => void (this.#told = this.#told.filter((t) => t !== tell));
  }

  count(job: string, place: string): number {
    return this.#of(job, place).length;
  }

  #of(job: string, place: string): Fact[] {
    return this.all.filter((k) => k.job === job && k.place === place).map((k) => k.fact);
  }

  readings = (job: string, place: string) => this.#of(job, place).filter(isReading);
  notes = (job: string, place: string) => this.#of(job, place).filter(isNote);
  obstacles = (job: string, place: string) => this.#of(job, place).filter(isObstacle);
  detections = (job: string, place: string) => this.#of(job, place).filter(isDetection);

  /** Keep facts here, then send them. One that waits already is kept in its newest form. */
  async keep(job: string, place: string, ...facts: Fact[]): Promise<void> {
    // plain copies: what a form still holds cannot be stored, and must not change what is kept
    const given = facts.map((fact) => $state.snapshot<Kept>(this.#tagged(job, place, fact)));
    const ids = new Set(given.map((k) => k.id));
    this.all = [...this.all.filter((k) => !ids.has(k.id)), ...given];
    const db = await store();
    for (const kept of given) await db?.put('facts', kept);
    await this.send();
  }

  #tagged(job: string, place: string, fact: Fact): Kept {
    this.#last = Math.max(this.#last + 1, Date.now());
    return { id: fact.id, user: this.#user, job, place, kept: this.#last, fact };
  }

  /** Whether something has not left the device. */
  has(id: string): boolean {
    return this.all.some((k) => k.id === id);
  }

  /** Take something back that has not left the device. */
  async take(id: string): Promise<boolean> {
    await this.#sending;
    if (!this.has(id)) return false;
    await this.#drop([id]);
    return true;
  }

  /** Settle a conflict: keep what the server has, or put what is kept here in its place. */
  async settle(conflict: Conflict, choice: 'mine' | 'theirs'): Promise<void> {
    const { kept, theirs } = conflict;
    this.conflicts = this.conflicts.filter((c) => c !== conflict);
    await this.#drop([kept.id]);
    if (choice === 'theirs') return this.#tellAll(kept.job);
    const supersedes = typeof theirs['id'] === 'string' ? theirs['id'] : kept.id;
    return this.keep(kept.job, kept.place, { ...kept.fact, id: newId(), supersedes });
  }

  send(): Promise<void> {
    this.#sending ??= this.#sendAll().finally(() => (this.#sending = null));
    return this.#sending;
  }

  /** Place by place; what is refused stays on the device and holds up nothing else. */
  async #sendAll(): Promise<void> {
    const refused = new Set<string>(this.conflicts.map((c) => c.kept.id));
    for (;;) {
      const first = this.all.find((k) => !refused.has(k.id));
      if (!first) return;
      const batch = this.all
        .filter((k) => k.job === first.job && k.place === first.place && !refused.has(k.id))
        .slice(0, MOST_SENT);
      try {
        await this.#sendBatch(batch);
      } catch (fault) {
        if (!(fault instanceof Refused)) throw fault;
        if (fault.passing) {
          setTimeout(() => void this.send(), RETRY_MS);
          return;
        }
        if (batch.length > 1) await this.#sendSingly(batch, refused);
        else this.#refuse(first, fault, refused);
      }
    }
  }

  #refuse(kept: Kept, fault: Refused, refused: Set<string>): void {
    refused.add(kept.id);
    if (fault.fault.theirs) this.conflicts = [...this.conflicts, { kept, theirs: fault.fault.theirs }];
    else notices.refused(fault);
  }

  async #sendBatch(batch: Kept[]): Promise<void> {
    const { job, place } = batch[0]!;
    const { revision } = await calls.addFacts(
      job,
      place,
      batch.map((k) => k.fact),
    );
    await this.#drop(batch.map((k) => k.id));
    this.#tellAll(job, revision);
  }

  #tellAll(job: string, revision = 0): void {
    this.#told.forEach((tell) => tell(job, revision));
  }

  async #sendSingly(batch: Kept[], refused: Set<string>): Promise<void> {
    for (const kept of batch) {
      try {
        await this.#sendBatch([kept]);
      } catch (fault) {
        if (!(fault instanceof Refused) || fault.passing) throw fault;
        this.#refuse(kept, fault, refused);
      }
    }
  }

  async #drop(ids: string[]): Promise<void> {
    const db = await store();
    for (const id of ids) await db?.delete('facts', id);
    this.all = this.all.filter((k) => !ids.includes(k.id));
  }
}

export const waiting = new Waiting();
addEventListener('online', () => void waiting.send());

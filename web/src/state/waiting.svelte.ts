/** What was found out and is not yet with the server: facts kept on the device, sent in order, once each by their own
 *  ids. What the server has in another form is held as a conflict until the user has seen both; what it will not have
 *  stays, with the reason, until the user drops it. Of several tabs one sends at a time. */
import { calls } from '../api/calls';
import { Refused } from '../api/client';
import type { Fact, Fault } from '../api/types';
import { newId } from '../entry/ids';
import { isDetection, isNote, isObstacle, isReading } from '../entry/facts';
import type { KeptFact } from './kept';
import { asksWhile } from './leaving';
import { notices } from './notices.svelte';
import { alone, channel, store } from './store';

/** Something kept here that the server has in another form. */
export interface Conflict {
  kept: KeptFact;
  theirs: Record<string, unknown>;
}

const RETRY_MS = 4000;
const LONGEST_RETRY_MS = 60_000;
/** The most facts in one call. */
const MOST_SENT = 500;

class Waiting {
  all = $state.raw<KeptFact[]>([]);
  /** What has arrived and is not in the open job's answer yet: it is shown on, or a thing that was just pressed would be
   *  as if it were not, until the job is read again. */
  #landed = $state.raw<{ kept: KeptFact; revision: number }[]>([]);
  conflicts = $state.raw<Conflict[]>([]);
  /** Why something stays here, by its id. */
  stuck = $state.raw<ReadonlyMap<string, Fault>>(new Map());
  /** Things that the device could not keep: they live as long as the page. */
  loose = $state.raw<ReadonlySet<string>>(new Set());
  #sending: Promise<void> | null = null;
  readonly #settled = new Set<string>();
  #user = '';
  #last = 0;
  #fresh = new Set<string>();
  #retry: ReturnType<typeof setTimeout> | undefined;
  #pause = RETRY_MS;
  #told: ((job: string, revision: number) => void)[] = [];
  #tabs = channel('wobble-waiting', () => void this.#look());

  /** Take up what an earlier visit left behind. */
  async open(user: string): Promise<void> {
    this.#user = user;
    this.conflicts = [];
    this.stuck = new Map();
    this.all = this.all.filter((k) => k.user === user && this.loose.has(k.id));
    await this.#look();
    if (!(await store()))
      notices.add(
        'error',
        'This browser keeps nothing on the device.',
        'Without a connection, what you type is lost when you close the page. A private window does that.',
      );
    void this.send();
  }

  /** Look again at what the device has: another tab may have added to it, or sent some. */
  async #look(): Promise<void> {
    // what is typed while the device is being read is not in its answer yet
    const [since, fresh] = [this.#last, new Set(this.#fresh)];
    const kept = ((await (await store())?.getAll('facts')) ?? []) as KeptFact[];
    const own = this.all.filter((k) => this.loose.has(k.id) || fresh.has(k.id) || k.kept > since);
    const found = [...kept.filter((k) => k.user === this.#user), ...own].map((k) => [k.id, k] as const);
    this.all = [...new Map(found).values()].toSorted((a, b) => a.kept - b.kept);
  }

  /** Be told when something of a job has arrived. */
  onArrival(tell: (job: string, revision: number) => void): () => void {
    this.#told.push(tell);
    return () => void (this.#told = this.#told.filter((t) => t !== tell));
  }

  count(job: string, place: string): number {
    return this.all.filter((k) => k.job === job && k.place === place).length;
  }

  #of(job: string, place: string): Fact[] {
    return [...this.#landed.map((l) => l.kept), ...this.all]
      .filter((k) => k.job === job && k.place === place)
      .map((k) => k.fact);
  }

  /** A job was read: what arrived up to its revision is in it. */
  seen(job: string, revision: number): void {
    if (this.#landed.length)
      this.#landed = this.#landed.filter((l) => l.kept.job !== job || l.revision > revision);
  }

  readings = (job: string, place: string) => this.#of(job, place).filter(isReading);
  notes = (job: string, place: string) => this.#of(job, place).filter(isNote);
  obstacles = (job: string, place: string) => this.#of(job, place).filter(isObstacle);
  detections = (job: string, place: string) => this.#of(job, place).filter(isDetection);

  /** Keep facts here, then send them. One that waits already is kept in its newest form. */
  async keep(job: string, place: string, ...facts: Fact[]): Promise<void> {
    await this.#add(job, place, facts);
    await this.send();
  }

  async #add(job: string, place: string, facts: readonly Fact[]): Promise<void> {
    // plain copies: what a form still holds cannot be stored, and must not change what is kept
    const given = facts.map((fact) => $state.snapshot<KeptFact>(this.#tagged(job, place, fact)));
    const ids = new Set(given.map((k) => k.id));
    this.all = [...this.all.filter((k) => !ids.has(k.id)), ...given];
    ids.forEach((id) => this.#fresh.add(id));
    if (!(await this.#put(given))) this.#hold(given);
    ids.forEach((id) => this.#fresh.delete(id));
  }

  async #put(given: KeptFact[]): Promise<boolean> {
    try {
      const db = await store();
      if (!db) return false;
      const change = db.transaction('facts', 'readwrite');
      await Promise.all([...given.map((k) => change.store.put(k)), change.done]);
      this.#tabs.tell();
      // asked for once there is something to lose; the browser may say no, and then clears it only when short of room
      void navigator.storage?.persist?.().catch(() => false);
      return true;
    } catch {
      return false;
    }
  }

  /** The device is full, or keeps nothing: say so while it can still be sent. */
  #hold(given: KeptFact[]): void {
    if (!this.loose.size)
      notices.add(
        'error',
        'This device could not keep what you typed.',
        'It is sent while the page is open: stay until nothing waits, and make room on the device.',
      );
    this.loose = new Set([...this.loose, ...given.map((k) => k.id)]);
  }

  #tagged(job: string, place: string, fact: Fact): KeptFact {
    this.#last = Math.max(this.#last + 1, Date.now());
    return { id: fact.id, user: this.#user, job, place, kept: this.#last, fact };
  }

  /** Whether something has not left the device. */
  has(id: string): boolean {
    return this.all.some((k) => k.id === id);
  }

  /** Take something back that has not left the device; false where it has, from this tab or another. */
  async take(id: string): Promise<boolean> {
    await this.#sending;
    return alone('wobble-send', async () => {
      await this.#look();
      const gone = this.all.find((k) => k.id === id);
      if (!gone) return false;
      // what was to take its place takes the place of what it would have replaced itself
      const after = this.all.filter((k) => k.fact.supersedes === id);
      const heirs = after.map((k) => ({ ...k, fact: { ...k.fact, supersedes: gone.fact.supersedes } }));
      this.all = this.all.map((k) => heirs.find((h) => h.id === k.id) ?? k);
      if (heirs.length) await this.#put(heirs);
      await this.#drop([id]);
      return true;
    });
  }

  /** Settle a conflict: keep what the server has, or put what is kept here in its place. */
  async settle(conflict: Conflict, choice: 'mine' | 'theirs'): Promise<void> {
    const { kept, theirs } = conflict;
    this.#settled.add(kept.id); // it goes no more, also while what takes its place is being kept
    this.conflicts = this.conflicts.filter((c) => c !== conflict);
    if (choice === 'mine') {
      const supersedes = typeof theirs['id'] === 'string' ? theirs['id'] : kept.id;
      await this.#add(kept.job, kept.place, [{ ...kept.fact, id: newId(), supersedes }]);
    }
    await this.#drop([kept.id]);
    this.#settled.delete(kept.id);
    if (choice === 'theirs') this.#tellAll(kept.job);
    else await this.send();
  }

  /** Try what was refused once more. */
  again(): Promise<void> {
    this.stuck = new Map();
    return this.send();
  }

  send(): Promise<void> {
    clearTimeout(this.#retry);
    this.#sending ??= alone('wobble-send', () => this.#sendAll()).finally(() => (this.#sending = null));
    return this.#sending;
  }

  /** Place by place; what is refused stays on the device and holds up nothing else. */
  async #sendAll(): Promise<void> {
    await this.#look();
    const left = new Set<string>([
      ...this.stuck.keys(),
      ...this.conflicts.map((c) => c.kept.id),
      ...this.#settled,
    ]);
    let later = false;
    for (;;) {
      const first = this.all.find((k) => !left.has(k.id));
      if (!first) break;
      const batch = this.all
        .filter((k) => k.job === first.job && k.place === first.place && !left.has(k.id))
        .slice(0, MOST_SENT);
      try {
        await this.#sendBatch(batch);
      } catch (fault) {
        if (!(fault instanceof Refused)) throw fault;
        later ||= fault.passing;
        if (fault.status === 0) break;
        // the server failed at this place, or it is gone: the others go on
        if (fault.passing || batch.length === 1 || fault.status === 404) {
          if (!fault.passing) batch.forEach((kept) => this.#refuse(kept, fault));
          batch.forEach((kept) => left.add(kept.id));
        } else later = (await this.#sendSingly(batch, left)) || later;
      }
    }
    if (!later) this.#pause = RETRY_MS;
    else
      this.#retry = setTimeout(() => {
        this.#pause = Math.min(this.#pause * 1.5, LONGEST_RETRY_MS);
        void this.send();
      }, this.#pause);
  }

  #refuse(kept: KeptFact, fault: Refused): void {
    if (fault.fault.theirs) {
      this.conflicts = [...this.conflicts, { kept, theirs: fault.fault.theirs }];
      return;
    }
    if (!this.stuck.size) notices.refused(fault);
    this.stuck = new Map([...this.stuck, [kept.id, fault.fault]]);
  }

  async #sendBatch(batch: KeptFact[]): Promise<void> {
    const { job, place } = batch[0]!;
    const { revision } = await calls.addFacts(
      job,
      place,
      batch.map((k) => k.fact),
    );
    this.#landed = [...this.#landed, ...batch.map((kept) => ({ kept, revision }))];
    await this.#drop(batch.map((k) => k.id));
    this.#tellAll(job, revision);
  }

  #tellAll(job: string, revision = 0): void {
    this.#told.forEach((tell) => tell(job, revision));
  }

  /** Whether some are to be sent later. */
  async #sendSingly(batch: KeptFact[], left: Set<string>): Promise<boolean> {
    for (const kept of batch) {
      try {
        await this.#sendBatch([kept]);
      } catch (fault) {
        if (!(fault instanceof Refused)) throw fault;
        if (fault.status === 0) throw fault;
        left.add(kept.id);
        if (fault.passing) return true;
        this.#refuse(kept, fault);
      }
    }
    return false;
  }

  /** Drop what can neither be sent nor is wanted. */
  async drop(ids: string[]): Promise<void> {
    await alone('wobble-send', () => this.#drop(ids));
  }

  async #drop(ids: string[]): Promise<void> {
    const gone = new Set(ids);
    this.all = this.all.filter((k) => !gone.has(k.id));
    this.stuck = new Map([...this.stuck].filter(([id]) => !gone.has(id)));
    this.loose = new Set([...this.loose].filter((id) => !gone.has(id)));
    const db = await store();
    for (const id of ids) await db?.delete('facts', id);
    this.#tabs.tell();
  }

  /** What waits, as facts by job and place, to keep elsewhere. */
  get exported(): string {
    const facts = this.all.map(({ job, place, fact }) => ({ job, place, fact }));
    return JSON.stringify({ format: 'wobble-waiting', version: 1, facts }, null, 2);
  }
}

export const waiting = new Waiting();
addEventListener('online', () => void waiting.send());
asksWhile(() => waiting.loose.size > 0);

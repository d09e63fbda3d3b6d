/** What was typed and is not yet with the server: readings, notes, marks and what was found behind a lining, kept on the device, sent in order, once each
 *  by their own ids. What the server has in another form is held as a conflict until the user has seen both. */
import { calls } from '../api/calls';
import { Refused } from '../api/client';
import type { Detection, Mark, Note, Reading } from '../api/types';
import { newId } from '../entry/ids';
import { notices } from './notices.svelte';
import { store } from './store';

/** What is kept; a changed mark carries what it was changed from. */
export type What =
  { reading: Reading } | { note: Note } | { mark: Mark; was: Mark | null } | { detection: Detection };
export type Kept = {
  id: string;
  user: string;
  job: string;
  bay: string;
  /** When it was kept, ms: the device's store gives things back by their ids. */
  kept: number;
} & What;

/** Something kept here that the server has in another form. */
export interface Conflict {
  kept: Kept;
  theirs: Record<string, unknown>;
}

const RETRY_MS = 4000;
const isReading = (k: Kept): k is Kept & { reading: Reading } => 'reading' in k;
const isDetection = (k: Kept): k is Kept & { detection: Detection } => 'detection' in k;
/** What goes in one call. */
const callOf = (k: Kept) => (isReading(k) ? 'readings' : isDetection(k) ? 'detections' : 'finds');

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
    const kept = ((await (await store())?.getAll('readings')) ?? []) as Kept[];
    this.all = kept.filter((k) => k.user === user).toSorted((a, b) => a.kept - b.kept);
    this.conflicts = [];
    void this.send();
  }

  /** Be told when something of a job has arrived. */
  onArrival(tell: (job: string, revision: number) => void): () => void {
    this.#told.push(tell);
    return () => void (this.#told = this.#told.filter((t) => t !== tell));
  }

  count(job: string, bay: string): number {
    return this.all.filter((k) => k.job === job && k.bay === bay).length;
  }

  #of(job: string, bay: string): Kept[] {
    return this.all.filter((k) => k.job === job && k.bay === bay);
  }

  of(job: string, bay: string): Reading[] {
    return this.#of(job, bay).flatMap((k) => (isReading(k) ? [k.reading] : []));
  }

  notesOf(job: string, bay: string): Note[] {
    return this.#of(job, bay).flatMap((k) => ('note' in k ? [k.note] : []));
  }

  marksOf(job: string, bay: string): Mark[] {
    return this.#of(job, bay).flatMap((k) => ('mark' in k ? [k.mark] : []));
  }

  detectionsOf(job: string, bay: string): Detection[] {
    return this.#of(job, bay).flatMap((k) => (isDetection(k) ? [k.detection] : []));
  }

  keepDetection(job: string, bay: string, detection: Detection): Promise<void> {
    return this.#keep({ ...this.#tag(detection.id, job, bay), detection });
  }

  /** Keep a reading here, then send it. */
  keep(job: string, bay: string, reading: Reading): Promise<void> {
    return this.#keep({ ...this.#tag(reading.id, job, bay), reading });
  }

  keepNote(job: string, bay: string, note: Note): Promise<void> {
    return this.#keep({ ...this.#tag(note.id, job, bay), note });
  }

  /** Keep a new or changed mark; changed again before it is sent, it still tells what the server had. */
  keepMark(job: string, bay: string, mark: Mark, was: Mark | null): Promise<void> {
    const id = `${job}/${bay}/${mark.id}`;
    const before = this.all.find((k) => k.id === id);
    const first = before && 'mark' in before ? before.was : was;
    return this.#keep({ ...this.#tag(id, job, bay), mark, was: first });
  }

  #tag(id: string, job: string, bay: string): Omit<Kept, keyof What> {
    this.#last = Math.max(this.#last + 1, Date.now());
    return { id, user: this.#user, job, bay, kept: this.#last };
  }

  async #keep(given: Kept): Promise<void> {
    // a plain copy: what a form still holds cannot be stored, and must not change what is kept
    const kept: Kept = $state.snapshot(given);
    this.all = [...this.all.filter((k) => k.id !== kept.id), kept];
    await (await store())?.put('readings', kept);
    await this.send();
  }

  /** Take something back that has not left the device. */
  async take(id: string): Promise<boolean> {
    await this.#sending;
    if (!this.all.some((k) => k.id === id)) return false;
    await this.#drop([id]);
    return true;
  }

  /** Settle a conflict: keep what the server has, or what is kept here. */
  async settle(conflict: Conflict, choice: 'mine' | 'theirs'): Promise<void> {
    const { kept } = conflict;
    this.conflicts = this.conflicts.filter((c) => c !== conflict);
    await this.#drop([kept.id]);
    if (choice === 'theirs') return this.#tellAll(kept.job);
    const { job, bay } = kept;
    if ('mark' in kept) await this.keepMark(job, bay, kept.mark, conflict.theirs as unknown as Mark);
    else if (isReading(kept)) {
      // a reading is a fact: mine goes in beside theirs, and takes its place
      await this.keep(job, bay, { ...kept.reading, id: newId(), supersedes: kept.reading.id });
    } else if ('note' in kept) await this.keepNote(job, bay, { ...kept.note, id: newId() });
  }

  send(): Promise<void> {
    this.#sending ??= this.#sendAll().finally(() => (this.#sending = null));
    return this.#sending;
  }

  /** Bay by bay; what is refused stays on the device and holds up nothing else. */
  async #sendAll(): Promise<void> {
    const refused = new Set<string>(this.conflicts.map((c) => c.kept.id));
    for (;;) {
      const first = this.all.find((k) => !refused.has(k.id));
      if (!first) return;
      const batch = this.all.filter(
        (k) =>
          k.job === first.job && k.bay === first.bay && callOf(k) === callOf(first) && !refused.has(k.id),
      );
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
    const { job, bay } = batch[0]!;
    const readings = batch.filter(isReading).map((k) => k.reading);
    const notes = batch.flatMap((k) => ('note' in k ? [k.note] : []));
    const marks = batch.flatMap((k) => ('mark' in k ? [{ mark: k.mark, was: k.was }] : []));
    const detections = batch.filter(isDetection).map((k) => k.detection);
    const kept = readings.length
      ? await calls.addReadings(job, bay, readings)
      : detections.length
        ? await calls.addDetections(job, bay, detections)
        : await calls.addFinds(job, bay, notes, marks);
    await this.#drop(batch.map((k) => k.id));
    this.#tellAll(job, kept.revision);
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
    for (const id of ids) await db?.delete('readings', id);
    this.all = this.all.filter((k) => !ids.includes(k.id));
  }
}

export const waiting = new Waiting();
addEventListener('online', () => void waiting.send());

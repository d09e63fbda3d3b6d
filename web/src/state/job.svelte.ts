/** The job in view, as the server has it. */
import { calls } from '../api/calls';
import { Refused } from '../api/client';
import type {
  About,
  Construction,
  Edit,
  Place,
  Instrument,
  LengthUnit,
  Sessions,
  Settle,
  ShimKit,
  Side,
  StoredJob,
  Workshop,
} from '../api/types';
import { isOnTheWay } from './leaving';
import { notices } from './notices.svelte';
import { remembered } from './store';
import { waiting } from './waiting.svelte';

type Send<T> = (id: string, edit: Edit<T>) => Promise<StoredJob>;
/** A job as an edit that is on its way makes it. */
type Shown = (job: StoredJob['job']) => StoredJob['job'];

/** What two changed differently, and how to choose; null leaves all as it is stored, and the form as it is typed. */
export interface Clash {
  readonly sides: readonly Side[];
  choose(side: Settle['side'] | null): void;
}

/** How long a page that is opened waits for a change of the page before: a conflict may wait for its user. */
const EDIT_MS = 4000;

class OpenJob {
  stored = $state.raw<StoredJob | null>(null);
  missing = $state(false);
  clash = $state.raw<Clash | null>(null);
  /** The job that is to be in view. */
  #wanted = '';
  #last: Promise<boolean> = Promise.resolve(true);
  #queued = 0;
  #own = new Map<string, { was: string; now: unknown }>();
  /** The job as it is stored, and what is on its way there: forms are drawn with both. */
  #server: StoredJob | null = null;
  #under: readonly { job: string; shown: Shown }[] = [];

  async load(id: string): Promise<void> {
    this.#wanted = id;
    if (this.stored?.id !== id) this.stored = null;
    this.missing = false;
    // what was changed on the page before and is on its way still belongs to what this page shows
    if (this.#queued) await Promise.race([this.#last, new Promise((done) => setTimeout(done, EDIT_MS))]);
    try {
      const found = await remembered(`job ${id}`, () => calls.job(id));
      if (this.#wanted === id) this.#take(found);
    } catch (fault) {
      if (this.#wanted !== id) return; // whoever went on to another job waits for that one
      if (fault instanceof Refused && fault.status === 404) this.missing = true;
      else notices.refused(fault);
    }
  }

  /** Fetch the job anew after something of it was sent, if it is still the one in view. */
  async renew(id: string): Promise<void> {
    if (this.stored?.id === id) await this.load(id);
  }

  /** An answer that was asked for before an edit, and comes after it, tells of what was. */
  #take(found: StoredJob): void {
    const { stored } = this;
    if (stored?.id !== found.id || stored.revision <= found.revision) this.#draw(found);
    waiting.seen(found.id, found.revision);
  }

  #draw(server: StoredJob): void {
    this.#server = server;
    const own = this.#under.filter((u) => u.job === server.id);
    this.stored = { ...server, job: own.reduce((job, u) => u.shown(job), server.job) };
  }

  get units(): LengthUnit {
    return this.stored?.job.units ?? 'mm';
  }

  place(key: string): Place | undefined {
    return this.stored?.job.places.find((b) => b.id === key);
  }

  /** Store what a form changed, from what it was drawn from to what it should be. What somebody else changed meanwhile
   *  stays; where both changed the same, both are shown, and nothing is stored before the user has chosen.
   *  Edits go one after the other; with `shown` the job is drawn with one at once, so that the next starts from it. */
  edit<T>(target: string, send: Send<T>, was: T, now: T, shown?: Shown): Promise<boolean> {
    const job = this.stored?.id; // whichever job is in view once its turn comes
    if (job === undefined) return Promise.resolve(false);
    this.#queued += 1;
    if (shown && this.stored) {
      if (!this.#under.length || this.#server?.id !== job) this.#server = this.stored;
      this.#under = [...this.#under, { job, shown }];
      this.stored = { ...this.stored, job: shown(this.stored.job) };
    }
    this.#last = this.#last.then(async () => {
      const done = await this.#edit(job, target, send, was, now);
      this.#under = this.#under.filter((u) => u.shown !== shown);
      const server = done ?? (shown ? this.#server : null);
      if (server && this.stored?.id === server.id) this.#draw(server);
      this.#queued -= 1;
      if (!this.#queued) this.#own.clear();
      return done !== null;
    });
    return isOnTheWay(this.#last);
  }

  /** Give the job as it is stored then, or null where nothing was. */
  async #edit<T>(job: string, target: string, send: Send<T>, was: T, now: T): Promise<StoredJob | null> {
    const form = `${job} ${target}`;
    // what the user changed in the edit before this one is what this form showed, redrawn or not
    const own = this.#own.get(form);
    if (own && own.was === JSON.stringify(was)) was = own.now as T;
    let settle: Settle | null = null;
    for (;;) {
      try {
        const answer = await send(job, { was, now, settle });
        this.#own.set(form, { was: JSON.stringify(was), now });
        return answer;
      } catch (fault) {
        if (!(fault instanceof Refused) || fault.fault.code !== 'clash') {
          notices.refused(fault);
          return null;
        }
        const { sides, revision } = fault.fault;
        const side = await new Promise<Settle['side'] | null>(
          (choose) => (this.clash = { sides: sides ?? [], choose }),
        );
        this.clash = null;
        if (side === null) return null;
        settle = { side, revision: revision ?? 0 };
      }
    }
  }

  putAbout(was: About, now: About): Promise<boolean> {
    return this.edit('about', calls.putAbout, was, now, (job) => ({ ...job, ...now }));
  }

  putKit(was: ShimKit, now: ShimKit): Promise<boolean> {
    return this.edit('kit', calls.putKit, { kit: was }, { kit: now }, (job) => ({ ...job, kit: now }));
  }

  putWays(was: readonly Construction[], now: readonly Construction[]): Promise<boolean> {
    return this.edit('ways', calls.putWays, { constructions: was }, { constructions: now }, (job) => ({
      ...job,
      constructions: [...now],
    }));
  }

  putWorkshop(was: Workshop, now: Workshop): Promise<boolean> {
    return this.edit('workshop', calls.putWorkshop, { workshop: was }, { workshop: now }, (job) => ({
      ...job,
      workshop: now,
    }));
  }

  putSessions(was: Sessions, now: Sessions): Promise<boolean> {
    return this.edit('sessions', calls.putSessions, { sessions: was }, { sessions: now }, (job) => ({
      ...job,
      sessions: now,
    }));
  }

  putInstruments(was: readonly Instrument[], now: readonly Instrument[]): Promise<boolean> {
    return this.edit(
      'instruments',
      calls.putInstruments,
      { instruments: was },
      { instruments: now },
      (job) => ({
        ...job,
        instruments: [...now],
      }),
    );
  }

  /** What is decided for a place; its facts have a queue of their own. */
  putPlace(was: Place | null, now: Place): Promise<boolean> {
    return this.edit<Place | null>(`place ${now.id}`, calls.putPlace, was, now, (job) => ({
      ...job,
      places: job.places.map((p) => (p.id === now.id ? { ...now, facts: p.facts } : p)),
    }));
  }
}

export const open = new OpenJob();

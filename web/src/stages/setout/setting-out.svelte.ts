/** What is set out of one place while it is being drawn: what it comes to, what it was, and the way back and forth. */
import { calls } from '../../api/calls';
import type { LaidOut, Move, Place, SetOut, Surveyed, Unit } from '../../api/types';
import { open } from '../../state/job.svelte';
import { isOnTheWay, isPutOff, isStored } from '../../state/leaving';
import { merged } from '../../state/merged';
import { notices } from '../../state/notices.svelte';
import { remembered } from '../../state/store';

const SETTLE_MS = 500;

/** What of a place is set out. */
export function setOutOf(place: Place): SetOut {
  return {
    units: place.units ?? [],
    rules: place.rules ?? [],
    heights: place.heights ?? [],
    existing: place.existing ?? [],
    openings: place.openings ?? [],
  };
}

export class SettingOut {
  readonly job: string;
  readonly key: string;
  said = $state.raw<SetOut | null>(null);
  laid = $state.raw<LaidOut | null>(null);
  surveyed = $state.raw<Surveyed | null>(null);
  /** Pieces that are picked, the one picked last at the end. */
  picked = $state.raw<readonly string[]>([]);
  /** Milliseconds that the last change took to answer. */
  took = $state(0);
  #past = $state.raw<readonly SetOut[]>([]);
  #future = $state.raw<readonly SetOut[]>([]);
  #kept: SetOut | null = null;
  #line: Promise<unknown> = Promise.resolve();
  #timer: ReturnType<typeof setTimeout> | undefined;
  #from: SetOut | null = null;
  #next: { said: SetOut; move: Move | null } | null = null;
  #dragging = false;
  #left = false;

  constructor(job: string, key: string) {
    this.job = job;
    this.key = key;
  }

  get place(): Place | undefined {
    return open.place(this.key);
  }
  /** The piece picked last, as it is said. */
  get unit(): Unit | null {
    return this.said?.units?.find((u) => u.id === this.picked.at(-1)) ?? null;
  }
  get canUndo(): boolean {
    return this.#past.length > 0;
  }
  get canRedo(): boolean {
    return this.#future.length > 0;
  }

  async load(): Promise<void> {
    await open.load(this.job);
    const place = this.#left ? undefined : this.place;
    if (!place) return;
    this.said = this.#kept = setOutOf(place);
    try {
      const [laid, surveyed] = await Promise.all([
        remembered(`setout ${this.job} ${this.key}`, () => calls.setOut(this.job, this.key)),
        remembered(`gauge ${this.job} ${this.key}`, () => calls.gauge(this.job, this.key)),
      ]);
      if (this.#left) return;
      this.laid = laid;
      this.surveyed = surveyed;
    } catch (fault) {
      notices.refused(fault);
    }
  }

  pick(id: string | null, more = false): void {
    if (id === null) this.picked = [];
    else if (!more) this.picked = [id];
    else this.picked = this.picked.includes(id) ? this.picked.filter((p) => p !== id) : [...this.picked, id];
  }

  /** Make a move; the way back is kept. Gives whether it was made. */
  do(move: Move): Promise<boolean> {
    return this.#after(async () => {
      const was = this.said;
      if (!was) return false;
      if (!(await this.#ask(was, move))) return false;
      this.#went(was);
      return true;
    });
  }

  /** Change what is said; the way back is kept. What a change before it is still being answered for stays changed. */
  change(part: Partial<SetOut>): Promise<boolean> {
    const drawn = this.said;
    return this.#after(async () => {
      const was = this.said;
      if (!was || !drawn) return false;
      if (!(await this.#ask(merged(drawn, { ...drawn, ...part }, was), null))) return false;
      this.#went(was);
      return true;
    });
  }

  changeUnit(id: string, part: Partial<Unit>): Promise<boolean> {
    const units = (this.said?.units ?? []).map((u) => (u.id === id ? { ...u, ...part } : u));
    return this.change({ units });
  }

  /** An edge is under the finger: each place is tried from where it was taken up; while one is answered the newest waits. */
  drag(move: Move): void {
    this.#drag({ said: this.from, move });
  }

  #drag(next: { said: SetOut; move: Move | null }): void {
    if (!this.said) return;
    this.#from ??= this.said;
    this.#next = next;
    if (this.#dragging) return;
    this.#dragging = true;
    void this.#after(async () => {
      while (this.#next && this.#from) {
        const { said, move } = this.#next;
        this.#next = null;
        if (!(await this.#ask(said, move))) break;
      }
      this.#dragging = false;
      return true;
    });
  }

  /** What a drag began from; what is said where none is under way. */
  get from(): SetOut {
    return this.#from ?? this.said!;
  }

  /** A height is under the finger: what it makes of what is said is tried as a dragged edge is. */
  dragTo(said: SetOut): void {
    this.#drag({ said, move: null });
  }

  /** The finger is lifted: what was dragged is kept, or goes back to where it was. */
  drop(keep = true): Promise<boolean> {
    return this.#after(async () => {
      const was = this.#from;
      this.#from = null;
      this.#next = null;
      if (!was) return false;
      if (keep) this.#went(was);
      else await this.#ask(was, null);
      return keep;
    });
  }

  undo(): Promise<boolean> {
    return this.#after(async () => {
      const [was, now] = [this.#past.at(-1), this.said];
      if (!was || !now || !(await this.#ask(was, null))) return false;
      this.#past = this.#past.slice(0, -1);
      this.#future = [...this.#future, now];
      this.#keepSoon();
      return true;
    });
  }

  redo(): Promise<boolean> {
    return this.#after(async () => {
      const [next, now] = [this.#future.at(-1), this.said];
      if (!next || !now || !(await this.#ask(next, null))) return false;
      this.#future = this.#future.slice(0, -1);
      this.#past = [...this.#past, now];
      this.#keepSoon();
      return true;
    });
  }

  /** One after the other, in the order in which they were made. */
  #after(work: () => Promise<boolean>): Promise<boolean> {
    const done = isOnTheWay(this.#line.then(work));
    this.#line = done.catch(() => undefined);
    return done;
  }

  async #ask(said: SetOut, move: Move | null): Promise<boolean> {
    const began = performance.now();
    try {
      const tried = await calls.trySetOut(this.job, this.key, said, move);
      if (this.#left) return true;
      this.said = tried.said;
      this.laid = tried.laid;
      this.took = performance.now() - began;
      const there = new Set([...(tried.said.units ?? []), ...(tried.said.existing ?? [])].map((u) => u.id));
      if (this.picked.some((p) => !there.has(p))) this.picked = this.picked.filter((p) => there.has(p));
      return true;
    } catch (fault) {
      notices.refused(fault);
      return false;
    }
  }

  #went(was: SetOut): void {
    this.#past = [...this.#past.slice(-99), was];
    this.#future = [];
    this.#keepSoon();
  }

  #keepSoon(): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#keep(), SETTLE_MS);
    isPutOff(this, () => void this.#keep());
  }

  async #keep(): Promise<void> {
    clearTimeout(this.#timer);
    isStored(this);
    const { said } = this;
    const was = this.#kept;
    if (!said || !was || JSON.stringify(said) === JSON.stringify(was)) return;
    const done = await open.edit(
      `setout ${this.key}`,
      (id, edit) => calls.putSetOut(id, this.key, edit),
      was,
      said,
    );
    if (!done) {
      // it stays drawn, and is kept with the next change; what is stored is what that is made from
      return;
    }
    this.#kept = said;
    const place = this.#left ? undefined : this.place;
    if (!place || this.said !== said) return;
    const stored = setOutOf(place);
    if (JSON.stringify(stored) !== JSON.stringify(said)) {
      // another device changed something else meanwhile: both are in view now, and what is being changed here too
      this.#kept = stored;
      await this.#after(() => this.#ask(merged(said, this.said ?? said, stored), null));
    }
  }

  /** The page is left: what is drawn and not yet kept is kept now. */
  leave(): void {
    clearTimeout(this.#timer);
    void this.#line.then(() => this.#keep());
    this.#left = true;
  }
}

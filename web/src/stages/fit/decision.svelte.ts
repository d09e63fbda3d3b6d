/** The decisions of one place while they are being turned: what they mean now, what they meant before, and the way back. */
import { calls } from '../../api/calls';
import { Refused } from '../../api/client';
import type { BackLine, PlaceFit, Closing, Datum, Surveyed } from '../../api/types';
import { open } from '../../state/job.svelte';
import { notices } from '../../state/notices.svelte';
import { remembered } from '../../state/store';

const SETTLE_MS = 400;

interface Choice {
  datum: Datum;
  back_line: BackLine;
  closing: Closing;
}

export class Decision {
  readonly job: string;
  readonly key: string;
  fit = $state.raw<PlaceFit | null>(null);
  surveyed = $state.raw<Surveyed | null>(null);
  /** Shims and packing as they were under the decision kept last, by support or fixing, to mark what changes. */
  before = $state.raw<ReadonlyMap<string, number>>(new Map());
  turned = $state.raw<Choice | null>(null);
  /** Milliseconds that the last turned decision took to answer. */
  took = $state(0);
  #past = $state.raw<Choice[]>([]);
  #busy = false;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #next: Choice | null = null;
  #left = false;

  constructor(job: string, key: string) {
    this.job = job;
    this.key = key;
  }

  readonly place = $derived.by(() => open.place(this.key));
  readonly kept = $derived.by<Choice | null>(() =>
    this.place
      ? {
          datum: this.place.datum ?? { rule: 'high spot', over_mm: 0 },
          back_line: this.place.back_line ?? {},
          closing: this.place.closing ?? {},
        }
      : null,
  );
  readonly now = $derived(this.turned ?? this.kept);
  readonly plan = $derived(this.fit?.plan ?? null);

  async load(): Promise<void> {
    await open.load(this.job);
    if (this.#left || !this.place) return;
    try {
      const [fit, surveyed] = await Promise.all([
        remembered(`fit ${this.job} ${this.key}`, () => calls.fit(this.job, this.key)),
        remembered(`gauge ${this.job} ${this.key}`, () => calls.gauge(this.job, this.key)),
      ]);
      if (this.#left) return;
      this.fit = fit;
      this.surveyed = surveyed;
      this.before = gaps(fit);
    } catch (fault) {
      notices.refused(fault);
    }
  }

  /** The page is left: what was turned and not yet kept is kept now, and no answer is awaited. */
  leave(): void {
    clearTimeout(this.#timer);
    const { turned, kept } = this;
    this.#left = true;
    if (turned && JSON.stringify(turned) !== JSON.stringify(kept)) void this.#send(turned);
  }

  /** Try a decision: nothing is kept. While one is being answered only the newest of the rest waits. */
  turn(part: Partial<Choice>): void {
    if (!this.now) return;
    this.turned = { ...this.now, ...part };
    this.#next = this.turned;
    if (!this.#busy) void this.#answer();
  }

  async #answer(): Promise<void> {
    this.#busy = true;
    while (this.#next) {
      const asked = this.#next;
      this.#next = null;
      const began = performance.now();
      try {
        const fit = await calls.tryFit(this.job, this.key, asked.datum, asked.back_line, asked.closing);
        if (this.#left) return;
        this.fit = fit;
        this.took = performance.now() - began;
      } catch (fault) {
        notices.refused(fault);
        this.turned = null;
        if (fault instanceof Refused && fault.passing) break;
      }
    }
    this.#busy = false;
  }

  /** Keep what was turned, once it has stood for a moment: a slider moved by keys is kept once, not at each step. */
  keep(): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#keep(), SETTLE_MS);
  }

  async #keep(): Promise<void> {
    if (!this.turned || !this.kept) return;
    if (JSON.stringify(this.turned) === JSON.stringify(this.kept)) {
      this.turned = null;
      return;
    }
    const from = this.kept;
    if (await this.#put(this.turned)) this.#past = [...this.#past, from];
  }

  #send(choice: Choice): Promise<boolean> {
    return open.edit(
      `decisions ${this.key}`,
      (id, edit) => calls.putDecisions(id, this.key, edit),
      this.kept ?? choice,
      choice,
    );
  }

  async #put(choice: Choice): Promise<boolean> {
    const done = await this.#send(choice);
    if (this.#left) return done;
    // what was turned meanwhile stays turned
    if (this.turned === choice) this.turned = null;
    if (!done) {
      this.turned = null;
      await this.load();
    }
    return done;
  }

  /** Forget the marks of what changed. */
  seen(): void {
    if (this.fit) this.before = gaps(this.fit);
  }

  get canUndo(): boolean {
    return this.#past.length > 0;
  }

  async undo(): Promise<void> {
    clearTimeout(this.#timer);
    const last = this.#past.at(-1);
    if (!last) return;
    this.#past = this.#past.slice(0, -1);
    this.turned = last;
    this.#next = last;
    await this.#answer();
    await this.#put(last);
  }
}

/** The gap at every support, fixing and side, and the compass of every cut line: what a turned decision moves. */
export function gaps(fit: PlaceFit): ReadonlyMap<string, number> {
  const plan = fit.plan;
  return new Map([
    ...(plan?.shims ?? []).map((s) => [s.support, s.gap.value_mm] as const),
    ...(plan?.packings ?? []).map((p) => [p.fixing, p.gap.value_mm] as const),
    ...fit.sides.flatMap((s) =>
      s.fillers.map((f) => [`filler ${s.tier} ${f.side}`, f.largest.value_mm] as const),
    ),
    ...fit.scribes.map((s) => [`scribe ${s.id}`, s.compass_mm] as const),
  ]);
}

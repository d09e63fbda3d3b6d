/** The round of one place as the user walks it: what is read, what waits, what is next; readings are added, never changed. */
import { calls } from '../../api/calls';
import type { Obstacle, Surveyed, Reading, Station, SurfaceName } from '../../api/types';
import { withWaiting } from '../../entry/facts';
import { newId } from '../../entry/ids';
import { ACROSS } from '../../entry/places';
import { neighbour, nextOpen } from '../../entry/walk';
import { open } from '../../state/job.svelte';
import { newest } from '../../state/newest';
import { notices } from '../../state/notices.svelte';
import { session } from '../../state/session.svelte';
import { remembered } from '../../state/store';
import { waiting } from '../../state/waiting.svelte';

export interface Target {
  station: string | null;
  surface: SurfaceName;
  at: [number, number];
}

export class Round {
  readonly job: string;
  readonly key: string;
  surveyed = $state.raw<Surveyed | null>(null);
  target = $state.raw<Target | null>(null);
  /** The line chosen for each axis. */
  lines = $state.raw<Partial<Record<'x' | 'y' | 'z', string>>>({});
  instrument = $state<string | null>(null);
  /** Whether a reading at a station that has one takes its place. */
  replaces = $state(true);
  last = $state.raw<Reading | null>(null);
  /** Ids that were recorded or set aside in this visit, newest last, for undo. */
  #done = $state.raw<string[]>([]);
  #left = false;

  constructor(job: string, key: string) {
    this.job = job;
    this.key = key;
  }

  readonly place = $derived.by(() => open.place(this.key));
  readonly stations = $derived(this.surveyed?.stations ?? []);
  readonly pending = $derived.by(() => waiting.readings(this.job, this.key));
  readonly pendingStations = $derived(new Set(this.pending.map((r) => this.#stationOf(r))));
  readonly suspects = $derived(
    new Set((this.surveyed?.verdicts ?? []).filter((v) => v.verdict === 'take again').map((v) => v.reading)),
  );
  readonly station = $derived(this.stations.find((s) => s.id === this.target?.station) ?? null);
  /** The newest reading at the target, if any: one that still waits here comes after all that the server has. */
  readonly here = $derived.by<Reading | null>(() => {
    const station = this.station;
    if (!station) return null;
    const waits = this.pending.findLast((r) => this.#stationOf(r) === station.id);
    return waits ?? (this.place?.readings ?? []).find((r) => r.id === station.read_by) ?? null;
  });
  readonly lastVerdict = $derived(this.surveyed?.verdicts.find((v) => v.reading === this.last?.id) ?? null);
  /** Whether a distance across is taken here, which needs no line. */
  readonly spans = $derived(this.station?.takes === 'span');
  /** Readings of which two retakes stand, as when two people went back with no connection. */
  readonly twice = $derived.by<[Reading, Reading][]>(() => {
    const standing = new Set((this.surveyed?.verdicts ?? []).map((v) => v.reading));
    const again = (this.place?.readings ?? []).filter((r) => r.supersedes && standing.has(r.id));
    return again.flatMap((two, i) => {
      const one = again.slice(0, i).find((r) => r.supersedes === two.supersedes);
      return one ? [[one, two] as [Reading, Reading]] : [];
    });
  });
  /** What is in the way, with what still waits here. */
  readonly obstacles = $derived.by<Obstacle[]>(() => {
    return withWaiting(this.place?.obstacles ?? [], waiting.obstacles(this.job, this.key));
  });
  readonly pendingNotes = $derived.by(() => waiting.notes(this.job, this.key));
  readonly best = $derived(this.stations.find((s) => s.id === this.surveyed?.next_reading?.station) ?? null);
  readonly line = $derived(this.#lineFor(this.target?.surface ?? 'floor'));

  async load(): Promise<void> {
    await open.load(this.job);
    if (this.#left || !this.place) return;
    await this.#solve();
    if (this.#left) return;
    this.instrument ??=
      this.place.readings?.findLast((r) => r.fact === 'offset')?.instrument ??
      open.stored?.job.instruments?.[0]?.id ??
      null;
    if (!this.target) this.next();
    if (!this.target && this.stations[0]) this.go(this.stations[0]);
  }

  readonly #listen = newest();
  async #solve(): Promise<void> {
    try {
      const surveyed = await this.#listen(
        remembered(`gauge ${this.job} ${this.key}`, () => calls.gauge(this.job, this.key)),
      );
      if (surveyed && !this.#left) this.surveyed = surveyed;
    } catch (fault) {
      notices.refused(fault);
    }
  }

  /** The page is left: what arrives now is for whoever opens it next. */
  leave(): void {
    this.#left = true;
  }

  /** The phone among the job's instruments, put there when it is first read with: its id; null where that fails. */
  async withPhone(): Promise<string | null> {
    const tools = open.stored?.job.instruments ?? [];
    const known = tools.find((i) => i.kind === 'phone');
    if (known) return known.id;
    const phone = { id: 'phone', name: 'This phone', kind: 'phone' as const, sigma_mm: 1, checks: [] };
    return (await open.putInstruments(tools, [...tools, phone])) ? phone.id : null;
  }

  /** Readings arrived at the server: look again. */
  async arrived(): Promise<void> {
    if (this.#left) return;
    await Promise.all([open.load(this.job), this.#solve()]);
  }

  /** The station that a reading was taken at; empty for one of its own. */
  #stationOf(reading: Reading): string {
    if (reading.fact === 'offset') return this.#stationAt(reading.surface, reading.at);
    if (reading.fact === 'span' && reading.between === 'floor-ceiling')
      return this.#stationAt('ceiling', reading.at);
    return '';
  }

  #stationAt(surface: SurfaceName, at: [number, number]): string {
    return (
      this.stations.find((s) => s.surface === surface && Math.hypot(s.at[0] - at[0], s.at[1] - at[1]) <= 30)
        ?.id ?? ''
    );
  }

  #lineFor(surface: SurfaceName): string | null {
    const across = ACROSS[surface];
    const known = (this.place?.set_ups ?? []).filter((s) => (s.across ?? 'z') === across);
    const used = this.place?.readings?.findLast(
      (r) => r.fact === 'offset' && known.some((s) => s.id === r.set_up),
    );
    return this.lines[across] ?? (used?.fact === 'offset' ? used.set_up : known.at(-1)?.id) ?? null;
  }

  choose(line: string): void {
    if (this.target) this.lines = { ...this.lines, [ACROSS[this.target.surface]]: line };
  }

  go(station: Station): void {
    this.target = { station: station.id, surface: station.surface, at: station.at };
    this.replaces = true;
  }

  goto(surface: SurfaceName, at: [number, number]): void {
    const near = this.#stationAt(surface, at);
    const station = this.stations.find((s) => s.id === near);
    if (station) this.go(station);
    else this.target = { station: null, surface, at };
  }

  /** To the neighbour in the round, read or not. */
  step(by: 1 | -1): void {
    const to = neighbour(this.stations, this.target?.station ?? null, by);
    if (to) this.go(to);
  }

  /** Spots of standing readings on a face that belong to no station. */
  loose(surface: SurfaceName): { id: string; at: [number, number]; suspect: boolean }[] {
    const standing = new Set((this.surveyed?.verdicts ?? []).map((v) => v.reading));
    const taken = new Set(this.stations.map((s) => s.read_by));
    return (this.place?.readings ?? []).flatMap((r) =>
      r.fact === 'offset' && r.surface === surface && standing.has(r.id) && !taken.has(r.id)
        ? [{ id: r.id, at: r.at, suspect: this.suspects.has(r.id) }]
        : [],
    );
  }

  /** Walk on to the next station without a reading; if all are read, to the worst that disagrees. */
  next(): void {
    const found = nextOpen(this.stations, this.target?.station ?? null, this.pendingStations);
    if (found) this.go(found);
    else {
      const doubted = this.stations.find(
        (s) => s.read_by && this.suspects.has(s.read_by) && s.id !== this.target?.station,
      );
      if (doubted) this.go(doubted);
    }
  }

  async record(mm: number, typed: string): Promise<void> {
    const reading = this.reading(this.target, mm, typed);
    if (reading) await this.add(reading);
  }

  /** What is read at a spot with the instrument and the line chosen; null where one of them is not. */
  reading(target: Target | null, mm: number, typed: string): Reading | null {
    if (!target || !this.instrument) return null;
    const { surface, at } = target;
    const again = target === this.target && this.here && this.replaces ? this.here.id : null;
    const common = { ...this.#common(typed), supersedes: again, at, value_mm: mm };
    const spans = this.stations.find((s) => s.id === target.station)?.takes === 'span';
    if (spans) return { ...common, fact: 'span', between: 'floor-ceiling' };
    const line = this.#lineFor(surface);
    return line ? { ...common, fact: 'offset', surface, set_up: line } : null;
  }

  /** Keep a reading, however it was taken, and walk on. */
  async add(reading: Reading): Promise<void> {
    this.last = reading;
    this.#done = [...this.#done, reading.id];
    // kept first, so that the walk knows the station as read
    const kept = waiting.keep(this.job, this.key, reading);
    if (reading.fact === 'offset' || this.spans) this.next();
    await kept;
  }

  #common(typed: string) {
    const taken_at = new Date().toISOString();
    return {
      id: newId(),
      instrument: this.instrument!,
      taken_at,
      taken_by: session.name,
      entered: typed,
      note: '',
      aside: null,
    };
  }

  get canUndo(): boolean {
    return this.#done.length > 0;
  }

  /** Take back the last reading of this visit: it is set aside, and stays on record. */
  async undo(): Promise<void> {
    const id = this.#done.at(-1);
    if (!id) return;
    this.#done = this.#done.slice(0, -1);
    if (await waiting.take(id)) return;
    // it may have just arrived, before this page has looked again
    if (!this.place?.readings.some((r) => r.id === id)) await this.arrived();
    const reading = this.place?.readings.find((r) => r.id === id);
    if (reading) await this.setAside(reading, 'taken back');
    if (reading?.fact === 'offset') this.goto(reading.surface, reading.at);
  }

  async setAside(reading: Reading, reason: string): Promise<void> {
    try {
      await calls.setAside(this.job, this.key, reading.id, reason, session.name);
      notices.add('info', 'The reading is set aside.', 'It stays on record and counts no more.', () =>
        this.putBack(reading),
      );
    } catch (fault) {
      notices.refused(fault);
    }
    await this.arrived();
  }

  async putBack(reading: Reading): Promise<void> {
    try {
      await calls.putBack(this.job, this.key, reading.id);
    } catch (fault) {
      notices.refused(fault);
    }
    await this.arrived();
  }
}

/** Facts by what they are: which are in use, and a place's lists of them. */
import type {
  Detection,
  Fact,
  FoundOut,
  Job,
  JobDocument,
  Note,
  Obstacle,
  Place,
  Reading,
  SentJob,
  StoredJob,
} from '../api/types';

export const isReading = (fact: Fact): fact is Reading =>
  ['offset', 'slope', 'span', 'gap', 'corner', 'profile', 'scan'].includes(fact.fact);
export const isDetection = (fact: Fact): fact is Detection => fact.fact === 'detection';
export const isNote = (fact: Fact): fact is Note => fact.fact === 'note';
export const isObstacle = (fact: Fact): fact is Obstacle => fact.fact === 'obstacle';

/** Facts neither set aside nor superseded by one that is not set aside itself. */
export function active<T extends Fact>(facts: readonly T[]): T[] {
  const superseded = new Set(facts.filter((f) => !f.aside).map((f) => f.supersedes));
  return facts.filter((f) => !f.aside && !superseded.has(f.id));
}

export function foundOut(facts: readonly Fact[]): FoundOut {
  const inUse = active(facts);
  return {
    readings: facts.filter(isReading),
    obstacles: inUse.filter(isObstacle),
    detections: inUse.filter(isDetection),
    notes: inUse.filter(isNote),
  };
}

/** A job as the pages read it. */
export const opened = (sent: SentJob): StoredJob => ({
  ...sent,
  job: { ...sent.job, places: sent.job.places.map((p) => ({ ...p, ...foundOut(p.facts) })) },
});

/** A job as it travels again. */
export const asDocument = (job: Job): JobDocument => ({
  ...job,
  places: job.places.map((p) => ({ ...decided(p), facts: p.facts })),
});

/** What is decided for a place, to send: its facts have a call of their own. */
export function decided(place: Place): SentJob['job']['places'][number] {
  const own: Omit<Place, keyof FoundOut> & Partial<FoundOut> = { ...place, facts: [] };
  for (const list of ['readings', 'obstacles', 'detections', 'notes'] as const) delete own[list];
  return own;
}

/** What the places' lists come to with facts that still wait here. */
export function withWaiting<T extends Fact>(known: readonly T[], waits: readonly T[]): T[] {
  const mine = new Set(waits.map((w) => w.id));
  return active([...known.filter((k) => !mine.has(k.id)), ...waits]);
}

/** The form of a change: a fact of its own that takes the place of what it was changed from. */
export const changed = <T extends Fact>(fact: T, was: T, id: string): T => ({
  ...fact,
  id,
  supersedes: was.id,
  taken_at: new Date().toISOString(),
  aside: null,
});

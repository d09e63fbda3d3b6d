/** How far a job is, in words and places to go: what the list of jobs and a job's page both show. */
import type { Glance, Next, PlaceGlance, StageAt } from '../api/types';

export type StageName = StageAt['stage'];
export type State = 'none' | 'some' | 'done' | 'stop';

export const NAMES: Record<StageName, string> = {
  place: 'Place',
  setout: 'Set out',
  gauge: 'Gauge',
  fit: 'Fit',
  hold: 'Hold',
  make: 'Make',
  order: 'Order',
  set: 'Set',
  record: 'Record',
};
export const STAGES: readonly StageName[] = ['setout', 'gauge', 'fit', 'hold', 'make', 'order', 'set'];
const OF_THE_JOB: readonly StageName[] = ['make', 'order', 'record'];

export function stateOf(at: StageAt): State {
  if (at.stops) return 'stop';
  if (!at.of || !at.done) return 'none';
  return at.done >= at.of ? 'done' : 'some';
}

/** What a stage is at, for whoever does not see its notch. */
export function said(at: StageAt): string {
  const name = NAMES[at.stage];
  if (at.stops) return `${name}: ${at.stops} to mend`;
  if (!at.of || !at.done) return `${name}: not begun`;
  return at.done >= at.of ? `${name}: done` : `${name}: ${at.done} of ${at.of}`;
}

/** The stages of a place, or of all places of a job together, in the order of the work. */
export function walk(glance: Glance, place?: PlaceGlance): StageAt[] {
  const found = [...(place ? place.stages : glance.places.flatMap((p) => p.stages)), ...glance.stages];
  return STAGES.map((stage) =>
    found
      .filter((s) => s.stage === stage)
      .reduce(
        (sum, s) => ({
          stage,
          done: sum.done + s.done,
          of: sum.of + s.of,
          stops: (sum.stops ?? 0) + (s.stops ?? 0),
        }),
        { stage, done: 0, of: 0, stops: 0 },
      ),
  );
}

export function wayTo(job: string, stage: StageName, place: string | undefined): string {
  if (stage === 'place' && !place) return `/jobs/${job}/new`;
  return OF_THE_JOB.includes(stage) || !place
    ? `/jobs/${job}${OF_THE_JOB.includes(stage) ? `/${stage}` : ''}`
    : `/jobs/${job}/${place}/${stage}`;
}

export const wayOn = (job: string, next: Next): string => wayTo(job, next.stage, next.place);

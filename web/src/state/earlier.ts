/** What an earlier version of this page kept on the device, in the form of today: nothing that was typed is lost. */
import type { Fact } from '../api/types';
import type { KeptFact } from './kept';

type Plain = Record<string, unknown>;

/** Turn what waited under its own kind (a reading, a note, a mark, a detection) into a fact that waits. */
export function fromFirst(old: Plain): KeptFact | null {
  const { user, job, bay, kept } = old as { user: string; job: string; bay: string; kept: number };
  const tag = { user, job, place: bay, kept };
  const head = { supersedes: null, aside: null, taken_by: '' };
  const seen = new Date(kept).toISOString();
  const fact = (made: Plain): KeptFact => ({ ...tag, id: String(made['id']), fact: made as unknown as Fact });
  if (old['reading']) {
    const { kind, ...reading } = old['reading'] as Plain;
    return fact({ ...reading, fact: kind });
  }
  if (old['detection']) return fact({ ...head, ...foundBy(old['detection'] as Plain), fact: 'detection' });
  if (old['note']) {
    const { written_at, written_by, ...note } = old['note'] as Plain;
    return fact({ ...head, ...note, fact: 'note', taken_at: written_at, taken_by: written_by ?? '' });
  }
  if (old['mark']) {
    const mark = old['mark'] as Plain;
    // a mark was changed in place: today a change is a fact of its own, and an id names one fact only
    const change = old['was'] ? { id: `${String(mark['id'])}-${kept}`, supersedes: mark['id'] } : {};
    return fact({ ...head, ...mark, ...change, fact: 'obstacle', taken_at: seen });
  }
  return null;
}

/** What a thing was found by was called its method. */
function foundBy({ method, ...found }: Plain): Plain {
  return method === undefined ? found : { ...found, found_by: method };
}

/** Turn a fact that waited under an earlier word into one of today. */
export function fromThird(kept: KeptFact): KeptFact {
  return { ...kept, fact: foundBy(kept.fact) as unknown as Fact };
}

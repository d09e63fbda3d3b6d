/** Answers asked for as soon as it is known who asks and which page it is, while the page's own code is on its way. */
const STAGES: Record<string, readonly string[]> = {
  setout: ['setout', 'gauge'],
  gauge: ['gauge'],
  fit: ['fit', 'gauge'],
  hold: ['hold', 'fit', 'gauge'],
  set: ['set', 'fit', 'hold', 'gauge'],
};
/** What is not asked for by then is let go: it may no longer be so. */
const HELD_MS = 4000;

const begun = new Map<string, Promise<Response>>();

/** Which answers a page begins with, as paths of the API. */
export function firstAnswers(path: string): string[] {
  const [, jobs, job, place, stage] = path.split('/');
  if (jobs !== 'jobs' || !job) return [];
  const of = `/api/jobs/${job}`;
  if (stage === undefined) return place === 'make' ? [of, `${of}/make`] : [of];
  return [of, ...(STAGES[stage] ?? []).map((answer) => `${of}/places/${place ?? ''}/${answer}`)];
}

/** Begin to ask for what a page begins with. */
export function askAhead(path: string): void {
  for (const answer of firstAnswers(path)) {
    const url = new URL(answer, location.origin).href;
    const asked = fetch(url);
    asked.catch(() => undefined); // whoever takes it is told
    begun.set(url, asked);
    setTimeout(() => begun.delete(url), HELD_MS);
  }
}

/** The answer that was asked for ahead, once. */
export function takeAhead(url: string): Promise<Response> | undefined {
  const found = begun.get(url);
  begun.delete(url);
  return found;
}

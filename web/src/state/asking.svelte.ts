/** What is asked anew as a form is turned: only the newest answer counts, and a refusal is told in its place. */
import { Refused } from '../api/client';
import { newest } from './newest';

export class Asking<T> {
  found = $state.raw<T | null>(null);
  fault = $state('');
  readonly #listen = newest();

  ask(asked: Promise<T>): void {
    const told = asked.then(
      (found) => ({ found, fault: '' }),
      (f: unknown) => ({
        found: null,
        fault: f instanceof Refused ? f.message : 'No answer from the server.',
      }),
    );
    void this.#listen(told).then((now) => now && ([this.found, this.fault] = [now.found, now.fault]));
  }
}

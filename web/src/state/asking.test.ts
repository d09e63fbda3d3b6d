import { expect, it } from 'vitest';
import { Refused } from '../api/client';
import { Asking } from './asking.svelte';

/** A question whose answer is given by hand. */
function question() {
  let give!: (answer: string) => void, refuse!: (fault: unknown) => void;
  const asked = new Promise<string>((yes, no) => ([give, refuse] = [yes, no]));
  return { asked, give, refuse };
}
const soon = () => new Promise((done) => setTimeout(done));

it('shows the newest answer, whichever comes last', async () => {
  const asking = new Asking<string>();
  const [first, second] = [question(), question()];
  asking.ask(first.asked);
  asking.ask(second.asked);
  second.give('of four boards');
  await soon();
  first.give('of three boards');
  await soon();
  expect([asking.found, asking.fault]).toEqual(['of four boards', '']);
});

it('tells why nothing was found in place of what was, until something is', async () => {
  const asking = new Asking<string>();
  const [fine, refused, cut, again] = [question(), question(), question(), question()];
  asking.ask(fine.asked);
  fine.give('of three boards');
  await soon();
  asking.ask(refused.asked);
  refused.refuse(new Refused(422, { code: 'divide', message: 'They fill the whole length.' } as never));
  await soon();
  expect([asking.found, asking.fault]).toEqual([null, 'They fill the whole length.']);
  asking.ask(cut.asked);
  cut.refuse(new TypeError('no connection'));
  await soon();
  expect(asking.fault).toBe('No answer from the server.');
  asking.ask(again.asked);
  again.give('of two boards');
  await soon();
  expect([asking.found, asking.fault]).toEqual(['of two boards', '']);
});

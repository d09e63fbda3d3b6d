import { expect, it, vi } from 'vitest';
import { once } from './once';

it('does what is pressed twice once, and again when it is done', async () => {
  let give!: () => void;
  const work = vi.fn<(what: string) => Promise<void>>(() => new Promise((done) => (give = done)));
  const press = once(work);
  const first = press('a');
  await press('b');
  expect(work.mock.calls).toEqual([['a']]);
  give();
  await first;
  void press('c');
  expect(work).toHaveBeenCalledTimes(2);
});

it('may be pressed again where it failed', async () => {
  const work = vi.fn(() => Promise.reject(new Error('not reached')));
  const press = once(work);
  await expect(press()).rejects.toThrow('not reached');
  await expect(press()).rejects.toThrow('not reached');
  expect(work).toHaveBeenCalledTimes(2);
});

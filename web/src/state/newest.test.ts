import { describe, expect, it } from 'vitest';
import { newest } from './newest';

describe('several askings of one thing', () => {
  it('listen to the newest, in whatever order the answers come', async () => {
    const listen = newest();
    let late: (said: string) => void = () => undefined;
    const first = listen(new Promise<string>((done) => (late = done)));
    const second = listen(Promise.resolve('new'));
    expect(await second).toBe('new');
    late('old');
    expect(await first).toBeUndefined();
    expect(await listen(Promise.resolve('newer'))).toBe('newer');
  });

  it('say nothing of a refusal that comes late', async () => {
    const listen = newest();
    let late!: (fault: Error) => void;
    const first = listen(new Promise<string>((_, no) => (late = no)));
    expect(await listen(Promise.resolve('new'))).toBe('new');
    late(new Error('of before'));
    expect(await first).toBeUndefined();
  });

  it('tell what was refused to whoever asked', async () => {
    const listen = newest();
    await expect(listen(Promise.reject(new Error('no')))).rejects.toThrow('no');
  });
});

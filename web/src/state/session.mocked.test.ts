/** A session that runs out, ends in another tab, or cannot be ended: the page and what is kept stay. */
import { beforeEach, describe, expect, it, vi } from 'vitest';

const who = (user: string | null, csrf = 'one') => ({ user, name: user ?? '', demo: false, csrf });
const calls = { session: vi.fn(), signIn: vi.fn(), signOut: vi.fn(), openDemo: vi.fn() };
vi.mock('../api/calls', () => ({ calls }));

async function signedIn(user: string) {
  vi.resetModules();
  calls.session.mockResolvedValue(who(user));
  const { session } = await import('./session.svelte');
  await session.load();
  return session;
}

describe('a session', () => {
  beforeEach(() => vi.resetAllMocks());

  it('that only has a new token is gone on with', async () => {
    const session = await signedIn('ines');
    calls.session.mockResolvedValue(who('ines', 'two'));
    expect(await session.renew()).toBe(true);
    expect(session.expired).toBe(false);
  });

  it('that ran out waits for the password, and all calls wait for the one answer', async () => {
    const session = await signedIn('ines');
    calls.session.mockResolvedValue(who(null));
    const both = Promise.all([session.renew(), session.renew()]);
    await vi.waitFor(() => expect(session.expired).toBe(true));
    calls.signIn.mockResolvedValue(who('ines', 'two'));
    await session.signIn('ines', 'right');
    expect(await both).toEqual([true, true]);
    expect(session.expired).toBe(false);
  });

  it('that ran out and is not renewed refuses the call', async () => {
    const session = await signedIn('ines');
    calls.session.mockResolvedValue(who(null));
    const renewed = session.renew();
    await vi.waitFor(() => expect(session.expired).toBe(true));
    session.answer(false);
    expect(await renewed).toBe(false);
  });

  it('of another who signed in elsewhere is not used for this page', async () => {
    const session = await signedIn('ines');
    calls.session.mockResolvedValue(who('tomas'));
    expect(await session.renew()).toBe(false);
    expect(session.who?.user).toBe('tomas');
  });

  it('that cannot be ended without a connection goes on', async () => {
    const session = await signedIn('ines');
    calls.signOut.mockRejectedValue(new Error('not reached'));
    await expect(session.signOut()).rejects.toThrow('not reached');
    expect(session.who?.user).toBe('ines');
  });
});

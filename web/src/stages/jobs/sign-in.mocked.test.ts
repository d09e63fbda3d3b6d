/** Ways in: a password, the demo, the first user, an invitation, a new password. */
import { unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Refused } from '../../api/client';
import { session } from '../../state/session.svelte';
import { button, fill, labelled, page, press, shown } from '../../testing';
import SignIn from './SignIn.svelte';

const calls = vi.hoisted(() => ({ invitation: vi.fn() }));
vi.mock('../../api/calls', () => ({ calls }));

const who = { user: null, name: '', demo: false, csrf: '', admin: false, first: false, local: false };
let made: Record<string, unknown>;
const put = (part: Partial<typeof who>, path = '/') => {
  history.replaceState(null, '', path);
  session.who = { ...who, ...part };
  made = shown(SignIn, {});
};

beforeEach(() => vi.restoreAllMocks());
afterEach(async () => {
  await unmount(made);
  history.replaceState(null, '', '/');
});

describe('the way in', () => {
  it('is a name and a password, and says in the server’s words why they will not do', async () => {
    const fault = { code: 'sign-in', message: 'They do not go together.', mend: 'Check both.', path: '' };
    const signIn = vi
      .spyOn(session, 'signIn')
      .mockRejectedValue(new Refused(403, { ...fault, revision: null, sides: [], theirs: null }));
    put({});
    expect(button('Sign in').disabled).toBe(true);
    fill('Name', 'ines');
    fill('Password', 'guess');
    press('Sign in');
    await vi.waitFor(() => expect(page()).toContain('They do not go together. Check both.'));
    expect(signIn).toHaveBeenCalledExactlyOnceWith('ines', 'guess');
    expect(() => button('Open the demo')).toThrow();
  });

  it('is one button where the demo is open', async () => {
    const demo = vi.spyOn(session, 'openDemo').mockResolvedValue();
    put({ demo: true });
    press('Open the demo');
    await vi.waitFor(() => expect(demo).toHaveBeenCalled());
  });

  it.each([
    [true, ''],
    [false, '5ab1'],
  ])('makes the first user; on the machine itself (%s) without a code', async (local, code) => {
    const makeFirst = vi.spyOn(session, 'makeFirst').mockResolvedValue();
    put({ first: true, local });
    expect(page()).toContain('Nobody can sign in here yet');
    if (local) expect(() => labelled('Code')).toThrow();
    else fill('Code', code);
    fill('Name', 'ines');
    fill('Password', 'dusty hands');
    press('Make the first user');
    await vi.waitFor(() => expect(makeFirst).toHaveBeenCalledExactlyOnceWith('ines', 'dusty hands', code));
  });

  it('takes an invitation', async () => {
    calls.invitation.mockResolvedValue({ path: '/join/abc', user: null });
    const join = vi.spyOn(session, 'join').mockResolvedValue();
    put({}, '/join/abc');
    await vi.waitFor(() => expect(page()).toContain('You are invited'));
    fill('Name', 'tomas');
    fill('Password', 'dusty hands');
    press('Go on');
    await vi.waitFor(() => expect(join).toHaveBeenCalledExactlyOnceWith('abc', 'tomas', 'dusty hands'));
  });

  it('asks for no name where a link is for somebody’s new password', async () => {
    calls.invitation.mockResolvedValue({ path: '/join/abc', user: 'tomas' });
    const join = vi.spyOn(session, 'join').mockResolvedValue();
    put({}, '/join/abc');
    await vi.waitFor(() => expect(page()).toContain('Choose a new password, tomas.'));
    expect(() => labelled('Name')).toThrow();
    fill('Password', 'another good one');
    press('Go on');
    await vi.waitFor(() => expect(join).toHaveBeenCalledExactlyOnceWith('abc', 'tomas', 'another good one'));
  });
});

/** One's own page: a password changed, and links for others. */
import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { calls } from '../../api/calls';
import { Refused } from '../../api/client';
import { notices } from '../../state/notices.svelte';
import { session } from '../../state/session.svelte';
import { button, fill, labelled, page, press, shown } from '../../testing';
import Me from './Me.svelte';

const who = { user: 'ines', name: 'Ines', demo: false, csrf: '', admin: false, first: false, local: false };
const refused = (path: string, message: string, mend: string) =>
  new Refused(422, { code: 'password', message, mend, path, revision: null, sides: [], theirs: null });
let made: Record<string, unknown>;
function put(part: Partial<typeof who> = {}) {
  session.who = { ...who, ...part };
  made = shown(Me, {});
}

beforeEach(() => {
  notices.shown = [];
  vi.spyOn(calls, 'people').mockResolvedValue(['ines', 'tomas']);
});
afterEach(async () => {
  await unmount(made);
  vi.restoreAllMocks();
  session.who = null;
});

it('changes a password by the one before, and forgets what was typed', async () => {
  const change = vi.spyOn(session, 'putPassword').mockResolvedValue();
  put();
  expect(button('Change it').disabled).toBe(true);
  fill('Password that you sign in with', 'dusty hands');
  fill('New password', 'clean hands');
  press('Change it');
  press('Change it');
  await vi.waitFor(() => expect(notices.shown[0]?.title).toBe('Your password is changed.'));
  expect(change).toHaveBeenCalledExactlyOnceWith('dusty hands', 'clean hands');
  flushSync();
  expect(labelled<HTMLInputElement>('New password').value).toBe('');
});

it('says at the field why a password will not do, and keeps what was typed', async () => {
  const fault = refused('$.password', 'It is too short.', 'Take ten letters or more.');
  vi.spyOn(session, 'putPassword').mockRejectedValue(fault);
  put();
  fill('Password that you sign in with', 'dusty hands');
  fill('New password', 'short');
  press('Change it');
  await vi.waitFor(() => expect(page()).toContain('It is too short. Take ten letters or more.'));
  expect(labelled<HTMLInputElement>('New password').value).toBe('short');
});

it('has no password to change in the demo, and nobody to invite for who may not', async () => {
  put({ demo: true });
  await vi.waitFor(() => expect(calls.people).toHaveBeenCalled());
  expect(page()).not.toContain('Your password');
  expect(page()).not.toContain('Who may sign in');
  expect(page()).toContain('Save all jobs as one file');
});

it('makes one link for somebody new, and one for a new password of another', async () => {
  const invite = vi
    .spyOn(calls, 'invite')
    .mockImplementation((whom) =>
      Promise.resolve({ path: `/join/for-${whom || 'anybody'}`, user: whom || null }),
    );
  put({ admin: true });
  await vi.waitFor(() => expect(page()).toContain('tomas'));
  expect([...document.querySelectorAll('li button')]).toHaveLength(1);
  press('Invite somebody');
  press('Invite somebody');
  await vi.waitFor(() => expect(page()).toContain(`${location.origin}/join/for-anybody`));
  press('Link for a new password');
  await vi.waitFor(() => expect(page()).toContain('/join/for-tomas'));
  expect(invite.mock.calls).toEqual([[''], ['tomas']]);
});

it('tells what is refused in the server’s words', async () => {
  vi.spyOn(calls, 'invite').mockRejectedValue(refused('', 'You may not invite.', 'Ask who set Wobble up.'));
  put({ admin: true });
  press('Invite somebody');
  await vi.waitFor(() => expect(notices.shown[0]?.title).toBe('You may not invite.'));
});

/** Dialogs that ask before anything is lost: two values of one thing, what waits, a session that ended. */
import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Fact } from '../api/types';
import { open } from '../state/job.svelte';
import { session } from '../state/session.svelte';
import type { KeptFact } from '../state/kept';
import { waiting } from '../state/waiting.svelte';
import { button, fill, page, press, shown } from '../testing';
import Conflicts from './Conflicts.svelte';
import Expired from './Expired.svelte';
import WaitingList from './WaitingList.svelte';

const kept = (id: string, fact: object): KeptFact => ({
  id,
  user: 'ines',
  job: 'j',
  place: 'north',
  kept: Date.UTC(2026, 2, 7, 9, 30),
  fact: { id, ...fact } as unknown as Fact,
});
const reading = kept('r', {
  fact: 'offset',
  surface: 'floor',
  at: [700, 100],
  value_mm: 1002.5,
  set_up: 'line-1',
  instrument: 'laser',
});
const fault = { code: 'not-found', message: 'There is no such job.', mend: 'Go back to your jobs.' };
let made: Record<string, unknown>;

beforeEach(() => {
  waiting.all = [];
  waiting.conflicts = [];
  waiting.stuck = new Map();
  waiting.loose = new Set();
  open.clash = null;
  session.expired = false;
});
afterEach(async () => {
  await unmount(made);
  vi.restoreAllMocks();
});

describe('two values of one thing', () => {
  it('are not asked for while there are none', () => {
    made = shown(Conflicts, {});
    expect(page()).toBe('');
  });

  it.each([
    ['Keep mine', 'yours'],
    ['Keep theirs', 'theirs'],
  ])('of a form are chosen by %s', (name, side) => {
    const choose = vi.fn();
    open.clash = { sides: [{ path: '$.units[A].width_mm', yours: 690, theirs: 680 }], choose };
    made = shown(Conflicts, {});
    expect(page()).toContain('A: width690.0680.0');
    press(name);
    expect(choose).toHaveBeenCalledExactlyOnceWith(side);
  });

  it('of a fact are shown before those of a form, with what differs only', () => {
    const settle = vi.spyOn(waiting, 'settle').mockResolvedValue();
    const mine = kept('o', { fact: 'obstacle', name: 'Outlet', kind: 'outlet', at: [300, 400] });
    const conflict = {
      kept: mine,
      theirs: { id: 'p', fact: 'obstacle', name: 'Outlet', kind: 'switch', at: [300, 400] },
    };
    waiting.conflicts = [conflict];
    open.clash = { sides: [], choose: vi.fn() };
    made = shown(Conflicts, {});
    expect(page()).toContain('“Outlet” was changed in two places');
    expect(page()).toContain('kindoutletswitch');
    expect(page()).not.toContain('where');
    press('Keep mine');
    expect(settle).toHaveBeenCalledWith(conflict, 'mine');
  });
});

describe('what waits', () => {
  it('is listed by what it is, in the unit of the page', () => {
    waiting.all = [reading, kept('n', { fact: 'note', text: 'Damp under the sill' })];
    made = shown(WaitingList, { onclose: vi.fn() }, 'in');
    expect(page()).toContain('39 15/32');
    expect(page()).toContain('Damp under the sill');
    expect(page()).toContain('not sent yet');
    expect(() => button('Drop')).toThrow();
  });

  it('says why something was refused, and drops it on the second press only', () => {
    const drop = vi.spyOn(waiting, 'drop').mockResolvedValue();
    waiting.all = [reading];
    waiting.stuck = new Map([['r', fault as never]]);
    made = shown(WaitingList, { onclose: vi.fn() });
    expect(page()).toContain('There is no such job. Go back to your jobs.');
    press('Drop');
    expect(drop).not.toHaveBeenCalled();
    press('Drop for good');
    expect(drop).toHaveBeenCalledExactlyOnceWith(['r']);
  });

  it('says what the device could not keep, and is tried again on asking', () => {
    const again = vi.spyOn(waiting, 'again').mockResolvedValue();
    waiting.all = [reading];
    waiting.loose = new Set(['r']);
    made = shown(WaitingList, { onclose: vi.fn() });
    expect(page()).toContain('Not kept on the device: stay on the page.');
    press('Send now');
    expect(again).toHaveBeenCalled();
  });

  it('says so when nothing waits any more', () => {
    made = shown(WaitingList, { onclose: vi.fn() });
    expect(page()).toContain('Nothing waits');
  });
});

describe('a session that ended', () => {
  beforeEach(() => {
    session.who = {
      user: 'ines',
      name: 'Ines',
      demo: false,
      csrf: '',
      admin: false,
      first: false,
      local: false,
    };
  });

  it('asks for the password of whoever was here', async () => {
    const signIn = vi.spyOn(session, 'signIn').mockResolvedValue();
    session.expired = true;
    made = shown(Expired, {});
    expect(page()).toContain('Sign in again, Ines');
    expect(button('Sign in').disabled).toBe(true);
    fill('Password', 'dusty hands');
    press('Sign in');
    await vi.waitFor(() => expect(signIn).toHaveBeenCalledExactlyOnceWith('ines', 'dusty hands'));
  });

  it('may wait: what was being done is then refused', () => {
    const answer = vi.spyOn(session, 'answer');
    session.expired = true;
    made = shown(Expired, {});
    press('Not now');
    flushSync();
    expect(answer).toHaveBeenCalledWith(false);
  });
});

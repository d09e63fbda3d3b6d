/** Who is signed in, in this tab and the others; and the way back in where a session has run out. */
import { calls } from '../api/calls';
import { carry, whenRefused } from '../api/client';
import type { Session } from '../api/types';
import { notices } from './notices.svelte';
import { channel, forget, ownedBy, remembered } from './store';

class SignedIn {
  who = $state<Session | null>(null);
  /** The session ran out: the page waits, with all that is on it, until the password is given again. */
  expired = $state(false);
  #settle: ((again: boolean) => void) | null = null;
  #renewing: Promise<boolean> | null = null;
  #tabs = channel('wobble-session', () => void this.#elsewhere());

  async load(): Promise<void> {
    ownedBy('');
    this.#take(await remembered('session', calls.session));
  }

  /** Kept as well: without a connection the page opens as whoever was signed in last. */
  #take(who: Session): void {
    this.who = who;
    carry(who.csrf);
    ownedBy('');
    void remembered('session', () => Promise.resolve(who));
    ownedBy(who.user ?? '');
  }

  async signIn(user: string, password: string): Promise<void> {
    this.#take(await calls.signIn(user, password));
    this.#tabs.tell();
    this.answer(true);
  }

  async makeFirst(user: string, password: string, code: string): Promise<void> {
    this.#take(await calls.makeFirst(user, password, code));
    this.#tabs.tell();
  }

  async join(key: string, user: string, password: string): Promise<void> {
    this.#take(await calls.join(key, user, password));
    this.#tabs.tell();
  }

  async putPassword(old: string, password: string): Promise<void> {
    this.#take(await calls.putPassword(old, password));
    this.#tabs.tell();
  }

  async openDemo(): Promise<void> {
    this.#take(await calls.openDemo());
    this.#tabs.tell();
    this.answer(true);
  }

  /** Sign out; without a connection that cannot be done, and nothing is thrown away. */
  async signOut(): Promise<void> {
    const out = await calls.signOut();
    await forget();
    this.#take(out);
    this.#tabs.tell();
  }

  /** Another tab signed somebody in or out: the token is new, and the page may be another's. */
  async #elsewhere(): Promise<void> {
    try {
      const now = await calls.session();
      if (now.user !== this.who?.user)
        notices.add('info', now.user ? `Another tab signed in as ${now.name}.` : 'Another tab signed out.');
      this.#take(now);
      if (now.user) this.answer(true);
    } catch (fault) {
      notices.refused(fault);
    }
  }

  /** A call was refused as nobody's, or for its token: ask who is signed in, and for the password if nobody is. */
  renew(): Promise<boolean> {
    this.#renewing ??= this.#renew().finally(() => (this.#renewing = null));
    return this.#renewing;
  }

  async #renew(): Promise<boolean> {
    const was = this.who?.user;
    const now = await calls.session();
    carry(now.csrf);
    if (now.user === was) return true;
    if (now.user) {
      this.#take(now);
      notices.add('info', `This browser is signed in as ${now.name} now.`);
      return false;
    }
    this.expired = true;
    const again = await new Promise<boolean>((done) => (this.#settle = done));
    this.expired = false;
    return again && this.who?.user === was;
  }

  /** Whoever waits for a session goes on with it, or gives up. */
  answer(again: boolean): void {
    this.#settle?.(again);
    this.#settle = null;
  }

  get name(): string {
    return this.who?.name ?? '';
  }
}

export const session = new SignedIn();
whenRefused(() => session.renew());

/** Who is signed in. */
import { calls } from '../api/calls';
import { carry } from '../api/client';
import type { Session } from '../api/types';
import { forget, remembered } from './store';

class SignedIn {
  who = $state<Session | null>(null);

  async load(): Promise<void> {
    this.who = await remembered('session', calls.session);
    if (this.who) carry(this.who.csrf);
  }

  async signIn(user: string, password: string): Promise<void> {
    this.who = await calls.signIn(user, password);
  }

  async openDemo(): Promise<void> {
    this.who = await calls.openDemo();
  }

  async signOut(): Promise<void> {
    await forget();
    this.who = await calls.signOut();
  }

  get name(): string {
    return this.who?.name ?? '';
  }
}

export const session = new SignedIn();

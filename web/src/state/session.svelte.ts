/** Who is signed in. */
import { calls } from '../api/calls';
import type { Session } from '../api/types';

class SignedIn {
  who = $state<Session | null>(null);

  async load(): Promise<void> {
    this.who = await calls.session();
  }

  async signIn(user: string, password: string): Promise<void> {
    this.who = await calls.signIn(user, password);
  }

  async openDemo(): Promise<void> {
    this.who = await calls.openDemo();
  }

  async signOut(): Promise<void> {
    this.who = await calls.signOut();
  }

  get name(): string {
    return this.who?.name ?? '';
  }
}

export const session = new SignedIn();

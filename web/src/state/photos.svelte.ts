/** Pictures on their way: kept on the device until the server has each on its disk, then told as a fact. A picture is made
 *  small here first, which also leaves out what a phone writes into it beside the picture. */
import { calls } from '../api/calls';
import { Refused } from '../api/client';
import type { Photo } from '../api/types';
import { newId } from '../entry/ids';
import { notices } from './notices.svelte';
import { session } from './session.svelte';
import { alone, store } from './store';
import { waiting } from './waiting.svelte';

export interface Taken {
  id: string;
  user: string;
  job: string;
  place: string;
  picture: Blob;
  taken_at: string;
  about: string;
  moment: 'before' | 'during' | 'after';
  text: string;
}

const LONGEST_PX = 2000;
const RETRY_MS = 15_000;

/** A picture no larger than is kept; as it is where this browser cannot draw it. */
async function small(picture: Blob): Promise<Blob> {
  try {
    const drawn = await createImageBitmap(picture, { imageOrientation: 'from-image' });
    const share = Math.min(1, LONGEST_PX / Math.max(drawn.width, drawn.height));
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [Math.round(drawn.width * share), Math.round(drawn.height * share)];
    canvas.getContext('2d')!.drawImage(drawn, 0, 0, canvas.width, canvas.height);
    return await new Promise((done) => canvas.toBlob((made) => done(made ?? picture), 'image/jpeg', 0.85));
  } catch {
    return picture;
  }
}

class Photos {
  all = $state.raw<Taken[]>([]);
  /** Why the first of them did not go, if it did not. */
  fault = $state('');
  /** How much of the one that goes is sent, 0 to 1. */
  share = $state<number | null>(null);
  #retry: ReturnType<typeof setTimeout> | undefined;
  #sending: Promise<void> | null = null;

  async open(): Promise<void> {
    const kept = ((await (await store())?.getAll('photos')) ?? []) as Taken[];
    this.all = kept.filter((t) => t.user === session.name);
    if (this.all.length) void this.send();
  }

  async take(picture: Blob, said: Pick<Taken, 'job' | 'place' | 'about' | 'moment' | 'text'>): Promise<void> {
    const taken: Taken = {
      ...said,
      id: newId(),
      user: session.name,
      picture: await small(picture),
      taken_at: new Date().toISOString(),
    };
    try {
      await (await store())?.put('photos', taken);
    } catch {
      notices.add('error', 'This device could not keep the picture.', 'Stay on the page until it has gone.');
    }
    this.all = [...this.all, taken];
    await this.send();
  }

  send(): Promise<void> {
    clearTimeout(this.#retry);
    this.#sending ??= alone('wobble-photos', () => this.#sendAll()).finally(() => (this.#sending = null));
    return this.#sending;
  }

  async #sendAll(): Promise<void> {
    this.fault = '';
    for (const taken of this.all) {
      try {
        const kept = await calls.keepPhoto(taken.job, taken.picture, (share) => (this.share = share));
        const fact: Photo = {
          fact: 'photo',
          id: taken.id,
          taken_at: taken.taken_at,
          taken_by: taken.user,
          supersedes: null,
          aside: null,
          about: taken.about,
          moment: taken.moment,
          text: taken.text,
          surface: null,
          at: null,
          ...kept,
        };
        await waiting.keep(taken.job, taken.place, fact);
        await this.#drop(taken.id);
      } catch (fault) {
        if (!(fault instanceof Refused)) throw fault;
        this.fault = fault.fault.message;
        if (!fault.passing) {
          // it will never be taken: say so, and let the others go
          notices.refused(fault);
          await this.#drop(taken.id);
          continue;
        }
        this.#retry = setTimeout(() => void this.send(), RETRY_MS);
        break;
      } finally {
        this.share = null;
      }
    }
  }

  async #drop(id: string): Promise<void> {
    this.all = this.all.filter((t) => t.id !== id);
    await (await store())?.delete('photos', id);
  }
}

export const photos = new Photos();
addEventListener('online', () => void photos.send());

/** The one word that is being explained, and what was touched for it. */
import type { Word } from './words';

class Card {
  word = $state.raw<Word | null>(null);
  by = $state.raw<HTMLElement | null>(null);

  show(word: Word, by: HTMLElement): void {
    [this.word, this.by] = [word, by];
  }

  close(): void {
    this.word = this.by = null;
  }
}

export const card = new Card();

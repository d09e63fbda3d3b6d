/** Short words to the user about what just happened, with a way back where there is one. */
import { Refused } from '../api/client';

export interface Notice {
  id: number;
  kind: 'error' | 'info' | 'success';
  title: string;
  text: string;
  undo?: (() => Promise<void> | void) | undefined;
}

class Notices {
  shown = $state<Notice[]>([]);
  #last = 0;

  add(kind: Notice['kind'], title: string, text = '', undo?: Notice['undo']): void {
    const id = ++this.#last;
    this.shown = [...this.shown.slice(-2), { id, kind, title, text, undo }];
    if (kind !== 'error') setTimeout(() => this.drop(id), undo ? 12_000 : 5_000);
  }

  /** What was refused, in the server's words: what, where and how to mend it. */
  refused(fault: unknown): void {
    if (fault instanceof DOMException && fault.name === 'AbortError') return;
    if (!(fault instanceof Refused)) throw fault;
    const { message, mend, path } = fault.fault;
    this.add('error', message, [mend, path ? `At ${path}` : ''].filter(Boolean).join(' '));
  }

  drop(id: number): void {
    this.shown = this.shown.filter((n) => n.id !== id);
  }
}

export const notices = new Notices();

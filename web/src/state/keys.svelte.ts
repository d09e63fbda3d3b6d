/** The keys of the page in view; `?` lists them. */
export interface Key {
  keys: string[];
  what: string;
  /** Left out where a field answers the key itself and it is only to be listed. */
  run?: () => void;
}

class Keys {
  page = $state<Key[]>([]);
  /** Those of a drawing in view. */
  drawing = $state.raw<Key[]>([]);
  listed = $state(false);

  /** Answer a key press unless somebody is typing elsewhere. */
  press(event: KeyboardEvent): void {
    const target = event.target as HTMLElement;
    const field = target.closest<HTMLInputElement>('input, textarea, select, [contenteditable]');
    // letters are keys while the pad is empty, and part of what is typed (62 cm) once it is not
    const typing = field && !(field.matches('[data-pad]') && field.value === '');
    if (
      typing ||
      event.ctrlKey ||
      event.metaKey ||
      event.altKey ||
      document.querySelector('.bx--modal.is-visible')
    )
      return;
    if (event.key === '?') {
      this.listed = true;
      event.preventDefault();
      return;
    }
    const found = [...this.page, ...this.drawing].find((k) => k.keys.includes(event.key));
    if (!found?.run) return;
    event.preventDefault();
    found.run();
  }
}

export const keys = new Keys();

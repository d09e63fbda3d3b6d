/** The keys of the page in view; `?` lists them. */
export interface Key {
  keys: string[];
  what: string;
  run: () => void;
}

class Keys {
  page = $state<Key[]>([]);
  listed = $state(false);

  /** Answer a key press unless somebody is typing elsewhere. */
  press(event: KeyboardEvent): void {
    const target = event.target as HTMLElement;
    const typing =
      target.closest('input, textarea, select, [contenteditable]') && !target.closest('[data-pad]');
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
    const found = this.page.find((k) => k.keys.includes(event.key));
    if (!found) return;
    event.preventDefault();
    found.run();
  }
}

export const keys = new Keys();

/** Light, dark, or for glaring light; public/theme.js sets it before the first paint. */
const LOOKS = ['light', 'dark', 'glare'] as const;
export type Look = (typeof LOOKS)[number];
export const NAMES: Record<Look, string> = { light: 'Light', dark: 'Dark', glare: 'In glaring light' };

function shown(): Look {
  const root = document.documentElement;
  if (root.getAttribute('look') === 'glare') return 'glare';
  return root.getAttribute('theme') === 'g100' ? 'dark' : 'light';
}

class Theme {
  look = $state<Look>(shown());
  /** What comes after it, at a touch. */
  readonly next = $derived(LOOKS[(LOOKS.indexOf(this.look) + 1) % LOOKS.length]!);

  turn(): void {
    this.look = this.next;
    document.documentElement.setAttribute('theme', this.look === 'dark' ? 'g100' : 'white');
    document.documentElement.setAttribute('look', this.look);
    try {
      localStorage.setItem('wobble-theme', this.look);
    } catch {
      // storage may be closed to us; the choice then lasts as long as the page
    }
  }
}

export const theme = new Theme();

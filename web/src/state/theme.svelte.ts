/** Light or dark; public/theme.js sets it before the first paint. */
class Theme {
  dark = $state(document.documentElement.getAttribute('theme') === 'g100');

  turn(): void {
    this.dark = !this.dark;
    document.documentElement.setAttribute('theme', this.dark ? 'g100' : 'white');
    try {
      localStorage.setItem('wobble-theme', this.dark ? 'dark' : 'light');
    } catch {
      // storage may be closed to us; the choice then lasts as long as the page
    }
  }
}

export const theme = new Theme();

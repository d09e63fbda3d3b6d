/** What the number pad types: text that `parseLength` reads; fractions join what stands before them. */

export const EIGHTHS = ['1/8', '1/4', '3/8', '1/2', '5/8', '3/4', '7/8'];
export const SIXTEENTHS = ['1/16', '3/16', '5/16', '7/16', '9/16', '11/16', '13/16', '15/16'];

export function pressed(text: string, key: string): string {
  if (key === '⌫') return text.replace(/ ?\d+\/\d+$|.$/, '');
  if (key === '±') return text.startsWith('-') ? text.slice(1) : '-' + text;
  if (key.includes('/')) return `${text.replace(/ ?\d+\/\d+$/, '')} ${key}`.trimStart().replace(/^- /, '-');
  if (key === '.' && text.includes('.')) return text;
  return text + key;
}

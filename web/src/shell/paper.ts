/** What stands at the foot of every page that is printed: which job and place, as of when, and the page of how many. */

const sheet = new CSSStyleSheet();

/** Quoted for CSS, where a name holds quotes, strokes or lines of its own. */
const quoted = (text: string) => `"${text.replace(/["\\]/g, '\\$&').replace(/\s+/g, ' ')}"`;

export function footed(parts: readonly (string | undefined)[]): void {
  const text = parts.filter(Boolean).join(' · ');
  sheet.replaceSync(`@page {
    margin: 12mm 12mm 16mm;
    @bottom-left { content: ${quoted(text)}; font: 8pt sans-serif; color: #444 }
    @bottom-right { content: counter(page) " of " counter(pages); font: 8pt sans-serif; color: #444 }
  }`);
  if (!document.adoptedStyleSheets.includes(sheet)) document.adoptedStyleSheets.push(sheet);
}

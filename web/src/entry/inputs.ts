/** What fields of the workshop give: their text, a number with a point or a comma, a file's contents, a key for what is new. */
import { newId } from './ids';

export const text = (e: Event): string => (e.target as HTMLInputElement | HTMLSelectElement).value;

export const number = (e: Event): number => Number(text(e).replace(',', '.'));

export const key = (kind: string): string => `${kind}-${newId().slice(0, 8)}`;

/** The file that was chosen, as text; null where none was. It may be chosen again. */
export async function readFile(e: Event): Promise<string | null> {
  const input = e.target as HTMLInputElement;
  const file = input.files?.[0];
  const read = file ? await file.text() : null;
  input.value = '';
  return read;
}

/** Enter walks from field to field, as a meter types its number and Enter; after the last one the form is sent. */
export function fieldByField(form: HTMLElement, send: () => void): { destroy: () => void } {
  const press = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || !(event.target instanceof HTMLInputElement)) return;
    const fields = [
      ...form.querySelectorAll<HTMLInputElement>('input:not([type=checkbox]):not([type=file])'),
    ];
    const next = fields[fields.indexOf(event.target) + 1];
    event.preventDefault();
    event.stopPropagation();
    if (next) {
      next.focus();
      next.select();
    } else {
      event.target.blur();
      send();
    }
  };
  form.addEventListener('keydown', press);
  return { destroy: () => form.removeEventListener('keydown', press) };
}

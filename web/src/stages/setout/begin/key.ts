/** A new place's id, from its name: the address of its pages. */
export function newKey(name: string, places: readonly { id: string }[]): string {
  const plain =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'place';
  const taken = new Set(places.map((p) => p.id));
  let n = 1;
  while (taken.has(n === 1 ? plain : `${plain}-${n}`)) n += 1;
  return n === 1 ? plain : `${plain}-${n}`;
}

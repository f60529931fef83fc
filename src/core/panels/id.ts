/** An id of a panel's question that is not taken: the last words of it. */
export function idOfPanel(text: string, taken: ReadonlySet<string>): string {
  const plain = text.normalize('NFKD').replace(/[^\w\s-]/g, '').trim().toLowerCase();
  const stem = plain.split(/[\s_]+/).slice(-4).join('-').slice(0, 50) || 'panel';
  for (let number = 1, id = stem; ; number += 1, id = `${stem}-${number}`) {
    if (!taken.has(id)) return id;
  }
} // prettier-ignore

/** An id made of a name that no other row has: `gannet-x24`, then `gannet-x24-2`. */
export function idFrom(name: string, taken: Iterable<string>, otherwise = 'thing'): string {
  const plain = name
    .normalize('NFKD')
    .replace(/\p{Mark}/gu, '')
    .replace(/ß/g, 'ss')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+/, '')
    .slice(0, 48)
    .replace(/-+$/, '');
  const base = plain || otherwise;
  const known = new Set(taken);
  if (!known.has(base)) return base;
  for (let at = 2; ; at += 1) if (!known.has(`${base}-${at}`)) return `${base}-${at}`;
}

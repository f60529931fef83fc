/** The items in an order that nobody can foresee: who judges must not guess whose is whose. */
export function shuffled<Item>(list: readonly Item[]): Item[] {
  const out = [...list];
  for (let at = out.length - 1; at > 0; at -= 1) {
    const [random = 0] = crypto.getRandomValues(new Uint32Array(1));
    const other = random % (at + 1);
    const [a, b] = [out[at], out[other]];
    if (a !== undefined && b !== undefined) [out[at], out[other]] = [b, a];
  }
  return out;
}

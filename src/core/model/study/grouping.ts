/** Groups items by a key, keeping their order. */
export function groupBy<Item, Key>(
  items: Iterable<Item>,
  keyOf: (item: Item) => Key,
): Map<Key, Item[]> {
  const groups = new Map<Key, Item[]>();
  const list: readonly Item[] = Array.isArray(items) ? items : [...items];
  for (let at = 0; at < list.length; at += 1) {
    const item = list[at]!;
    const key = keyOf(item);
    const group = groups.get(key);
    if (group) group.push(item);
    else groups.set(key, [item]);
  }
  return groups;
}

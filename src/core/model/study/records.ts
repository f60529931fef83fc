/** The keys of a record, with their type. */
export const keysOf = <Key extends string>(
  record: Readonly<Partial<Record<Key, unknown>>>,
): Key[] => Object.keys(record) as Key[];

/** A record that has a value for each of some keys. */
export const recordOf = <Key extends string, Value>(
  keys: readonly Key[],
  valueOf: (key: Key, at: number) => Value,
): Record<Key, Value> =>
  Object.fromEntries(keys.map((key, at) => [key, valueOf(key, at)])) as Record<Key, Value>;

/** A field of any value; undefined of what is no object. */
export const fieldOf = (value: unknown, key: PropertyKey): unknown =>
  typeof value === 'object' && value !== null ? Reflect.get(value, key) : undefined;

/** Whether a value is one of some. */
export const isOneOf = <Value>(values: readonly Value[], value: unknown): value is Value =>
  values.some((one) => one === value);

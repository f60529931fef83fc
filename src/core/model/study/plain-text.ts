/** Control characters but tab, line feed and carriage return, and halves of a pair without the other. */
const UNPRINTABLE = new RegExp(
  [
    String.raw`[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]`,
    String.raw`[\ud800-\udbff](?![\udc00-\udfff])`,
    String.raw`(?<![\ud800-\udbff])[\udc00-\udfff]`,
  ].join('|'),
);
const ALL_UNPRINTABLE = new RegExp(UNPRINTABLE.source, 'g');
const REPLACEMENT = '\ufffd';

/** Whether a text holds only what can be kept, shown and written again. */
export const isPlainText = (text: string): boolean => !UNPRINTABLE.test(text);

/** A text with U+FFFD in place of whatever cannot be kept. */
export const plainText = (text: string): string => text.replace(ALL_UNPRINTABLE, REPLACEMENT);

/**
 * A value as it came, keys and texts within it brought to plain text; the same object where nothing
 * had to be changed. For what is kept as JSON and comes from outside.
 */
export function plainValue<Value>(value: Value): Value {
  return plain(value) as Value;
}

function plain(value: unknown): unknown {
  if (typeof value === 'string') return isPlainText(value) ? value : plainText(value);
  if (Array.isArray(value)) {
    const items = value.map(plain);
    return items.every((item, at) => item === value[at]) ? value : items;
  }
  if (typeof value !== 'object' || value === null) return value;
  const before = Object.entries(value);
  const after = before.map(([key, item]) => [plainText(key), plain(item)] as const);
  const isSame = after.every(
    ([key, item], at) => key === before[at]?.[0] && item === before[at][1],
  );
  return isSame ? value : Object.fromEntries(after);
}

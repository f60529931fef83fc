/**
 * The next sticker codes of a study: the last numbered code counted on, in its own writing.
 * A study without codes begins at `S-001`.
 *
 * @example nextCodes(['K7-008', 'K7-009'], 2) // ['K7-010', 'K7-011']
 */
export function nextCodes(existing: Iterable<string>, count: number): string[] {
  let prefix = 'S-';
  let digits = 3;
  let last = 0;
  for (const code of existing) {
    const parts = /^(.*?)(\d+)$/.exec(code);
    if (!parts) continue;
    const number = Number(parts[2]);
    if (number < last) continue;
    last = number;
    prefix = parts[1] ?? '';
    digits = (parts[2] ?? '').length;
  }
  return Array.from(
    { length: count },
    (_, at) => prefix + String(last + at + 1).padStart(digits, '0'),
  );
}

/**
 * The next sticker codes of a study: the last numbered code counted on, in its own writing.
 * A study without codes begins at `S-001`. Codes and ids that are taken are passed over.
 *
 * @example nextCodes(['K7-008', 'K7-009'], 2) // ['K7-010', 'K7-011']
 */
export function nextCodes(existing: Iterable<string>, count: number): string[] {
  let prefix = 'S-';
  let digits = 3;
  let last = 0;
  const taken = new Set<string>();
  for (const code of existing) {
    taken.add(plainCode(code));
    const parts = /^(.*?)(\d{1,9})$/.exec(code);
    if (!parts) continue;
    const number = Number(parts[2]);
    if (number < last) continue;
    last = number;
    prefix = parts[1] ?? '';
    digits = (parts[2] ?? '').length;
  }
  const codes: string[] = [];
  while (codes.length < count) {
    last += 1;
    const code = prefix + String(last).padStart(digits, '0');
    if (!taken.has(plainCode(code))) codes.push(code);
  }
  return codes;
}

/** A code as it is compared: a scanner or a hand may write it in small letters. */
const plainCode = (code: string): string => code.toLowerCase();

/** A specimen whose code was another's already, and the code that it got instead. */
export interface RenamedCode {
  specimen_id: string;
  before: string;
  after: string;
}

/**
 * Gives each specimen a code of its own: the first that has a code keeps it, each later one gets the code with a
 * number behind it. A specimen without a code stays without.
 *
 * @example withOwnCodes([{ specimen_id: 'a', code: 'K-1' }, { specimen_id: 'b', code: 'k-1' }])
 * // { renamed: [{ specimen_id: 'b', before: 'k-1', after: 'k-1-2' }] }
 */
export function withOwnCodes<Specimen extends { specimen_id: string; code: string | null }>(
  specimens: readonly Specimen[],
): { specimens: readonly Specimen[]; renamed: RenamedCode[] } {
  const all = new Set(specimens.flatMap(({ code }) => (code === null ? [] : [plainCode(code)])));
  const seen = new Set<string>();
  const renamed: RenamedCode[] = [];
  const rows = specimens.map((specimen) => {
    const { specimen_id, code } = specimen;
    if (code === null) return specimen;
    if (!seen.has(plainCode(code))) {
      seen.add(plainCode(code));
      return specimen;
    }
    let after = code;
    for (let number = 2; all.has(plainCode(after)); number += 1) after = `${code}-${number}`;
    all.add(plainCode(after));
    seen.add(plainCode(after));
    renamed.push({ specimen_id, before: code, after });
    return { ...specimen, code: after };
  });
  return renamed.length === 0 ? { specimens, renamed } : { specimens: rows, renamed };
}

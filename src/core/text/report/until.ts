import { instant, TABLE_NAMES, tableSpec, type Study, rowsAsColumns } from '../../model/study';

/** Tables whose rows say when they came to be, and the column that says it. */
const WHEN = ['started_at', 'at', 'taken_at'] as const;

/**
 * A study as it stood at a time: prints begun later are not in it, nor readings, findings and whatever
 * else was noted later, nor anything that names what is not there.
 *
 * @param time ISO 8601; rows that do not say when they came to be stay
 */
export function studyUntil(study: Study, time: string): Study {
  const end = instant(time);
  const whole = { ...study.tables };
  const keys = new Map<string, Set<string>>();
  for (const name of TABLE_NAMES) {
    const { key, references = [] } = tableSpec(name);
    const rows = rowsAsColumns(study.tables[name]);
    const kept = rows.filter((row) => {
      const at = WHEN.map((column) => row[column]).find((value) => typeof value === 'string');
      if (typeof at === 'string' && instant(at) > end) return false;
      return references.every((reference) => {
        if (reference.scope === 'id') {
          const id = row[reference.column];
          // A row may name one of its own table that comes after it.
          if (typeof id !== 'string' || reference.table === name) return true;
          return keys.get(reference.table)?.has(id) ?? true;
        }
        if (reference.scope !== 'key') return true;
        const own = reference.columns.map((column) => String(row[column])).join('\n');
        return keys.get(reference.table)?.has(own) ?? true;
      });
    });
    keys.set(name, new Set(kept.map((row) => key.map((column) => String(row[column])).join('\n'))));
    Object.assign(whole, { [name]: kept });
  }
  const present = new Set([...study.present].filter((name) => whole[name].length > 0));
  return { ...study, tables: whole, present };
}

import { groupBy, type StudyIndex } from '../../model/study';

/** How well inspectors agree. */
export interface SurfaceAgreement {
  /** 1 for the same grades everywhere, 0 for no more than chance; null where it cannot be told. */
  alpha: number | null;
  /** Zones of specimens that two inspectors or more have looked at. */
  units: number;
  /** Inspectors who have looked at such zones. */
  inspectors: number;
  /** Why it is not known. */
  notes: string[];
}

/** Agreement over the zones of all specimens: the value is an inspector's largest grade there. */
export function surfaceAgreement(index: StudyIndex): SurfaceAgreement {
  const { inspections, findings } = index.study.tables;
  const keyOf = (row: { specimen_id: string; zone_id: string; inspector: string }) =>
    JSON.stringify([row.specimen_id, row.zone_id, row.inspector]);
  const largest = new Map<string, number>();
  for (const row of findings) {
    largest.set(keyOf(row), Math.max(row.grade, largest.get(keyOf(row)) ?? 0));
  }
  const units = [...groupBy(inspections, (row) => `${row.specimen_id}/${row.zone_id}`).values()]
    .map((rows) => rows.map((row) => ({ ...row, grade: largest.get(keyOf(row)) ?? 0 })))
    .filter((rows) => rows.length > 1);
  const alpha = ordinalAlpha(units.map((rows) => rows.map((row) => row.grade)));
  const notes =
    units.length === 0
      ? ['no zone was looked at by two inspectors']
      : alpha === null
        ? ['every grade is the same: agreement cannot be told from chance']
        : [];
  return {
    alpha,
    units: units.length,
    inspectors: new Set(units.flatMap((rows) => rows.map((row) => row.inspector))).size,
    notes,
  };
}

/**
 * Krippendorff's alpha for ordinal values; units with one value are left out. Null where there are no
 * units or all values are the same.
 *
 * @see Krippendorff, Computing Krippendorff's alpha-reliability, 2011
 * @example ordinalAlpha([[1, 1], [2, 2], [3, 3]]) // 1
 */
export function ordinalAlpha(units: readonly (readonly number[])[]): number | null {
  const pairable = units.filter((values) => values.length > 1);
  const levels = [...new Set(pairable.flat())].sort((a, b) => a - b);
  const count = new Map(levels.map((level) => [level, 0]));
  for (const value of pairable.flat()) count.set(value, (count.get(value) ?? 0) + 1);
  const n = pairable.flat().length;
  /** Values below each level, half of its own counted: distances are differences of these. */
  const rank = new Map<number, number>();
  let below = 0;
  for (const level of levels) {
    const own = count.get(level) ?? 0;
    rank.set(level, below + own / 2);
    below += own;
  }
  const distance = (a: number, b: number) => ((rank.get(a) ?? 0) - (rank.get(b) ?? 0)) ** 2;
  let observed = 0;
  for (const values of pairable) {
    let sum = 0;
    for (const a of values) for (const b of values) sum += distance(a, b);
    observed += sum / (values.length - 1);
  }
  let expected = 0;
  for (const a of levels) {
    for (const b of levels) expected += (count.get(a) ?? 0) * (count.get(b) ?? 0) * distance(a, b);
  }
  return expected > 0 ? 1 - ((n - 1) * observed) / expected : null;
}

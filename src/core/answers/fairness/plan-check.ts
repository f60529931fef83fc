import {
  groupBy,
  isProcessSetting,
  PART_SETTINGS,
  type Intent,
  type Row,
  type Settings,
  type SettingValue,
} from '../../model/study';
import { roleOf } from './items';
import { itemWords } from './sentence';

/** A setting that must be equal and differs between the files that an artefact is to be printed from. */
export interface PlanDifference {
  artefact_id: string;
  key: string;
  values: { contender_id: string; toolpath: string; value: SettingValue | null }[];
}

/**
 * Finds, before anything is printed, in what the planned files of one artefact differ and must not.
 *
 * @param swept the setting that a sweep takes in steps
 * @param settings what the files state, by their path; a file that was not read is left out
 */
export function planDifferences(
  planned: readonly Row<'planned'>[],
  settings: ReadonlyMap<string, Settings>,
  intent: Intent,
  swept?: string,
): PlanDifference[] {
  const ways = { judged: intent === 'crossed' ? ('machines' as const) : intent, swept };
  const found: PlanDifference[] = [];
  for (const [artefact_id, rows] of groupBy(planned, (row) => row.artefact_id)) {
    const files = rows.flatMap((row) => {
      const own = row.toolpath === null ? undefined : settings.get(row.toolpath);
      return own && row.toolpath !== null ? [{ row, toolpath: row.toolpath, own }] : [];
    });
    const keys = new Set<string>([
      ...PART_SETTINGS,
      ...files.flatMap(({ own }) => Object.keys(own).filter(isProcessSetting)),
    ]);
    for (const key of keys) {
      if (roleOf(key, ways) !== 'held') continue;
      const values = files.map(({ row, toolpath, own }) => ({
        contender_id: row.contender_id,
        toolpath,
        value: own[key] ?? null,
      }));
      const known = new Set(values.flatMap(({ value }) => (value === null ? [] : [String(value)])));
      if (known.size > 1) found.push({ artefact_id, key, values });
    }
  }
  return found;
}

/** What the files of an artefact differ in, in one sentence; null where they do not. */
export function describePlanDifferences(
  differences: readonly PlanDifference[],
  labelOf: (contender: string) => string,
): string | null {
  if (differences.length === 0) return null;
  const parts = differences.map(({ key, values }) => {
    const known = values.filter(({ value }) => value !== null);
    const groups = [...groupBy(known, ({ value }) => String(value))];
    groups.sort(([, a], [, b]) => b.length - a.length);
    const said = groups.map(([value, of], at) =>
      at === 0 && of.length > 2
        ? `${value} elsewhere`
        : `${value} for ${[...new Set(of.map((one) => labelOf(one.contender_id)))].join(', ')}`,
    );
    return `${itemWords(key)} (${said.reverse().join('; ')})`;
  });
  return `The files differ in what must be equal: ${parts.join(', ')}.`;
}

/** The contenders whose planned files state something else than the reference's where it must be equal. */
export function unequalTo(
  reference: string | null,
  differences: readonly PlanDifference[],
): string[] {
  const found = differences.flatMap(({ values }) => {
    const own = values.find((one) => one.contender_id === reference)?.value ?? null;
    if (own === null) return [];
    return values
      .filter(({ value }) => value !== null && String(value) !== String(own))
      .map((one) => one.contender_id);
  });
  return [...new Set(found)];
}

import type { Contender } from '../../model/study';
import { columnLabel } from '../../model/study/labels';
import {
  isKnownSetting,
  normaliseSetting,
  settingNames,
  type Settings,
} from '../../model/study/settings';

/** A profile as a line-up shows it. */
export interface ShownProfile {
  profile_id: string;
  name: string;
  kind: 'stock' | 'tuned';
  parent_id: string | null;
}

/** One cell of the settings: what a contender's profile says, and what its files say otherwise. */
export interface SettingCell {
  /** Null where it is not known. */
  value: string | null;
  /** Whether it is not its stock parent's. */
  differs: boolean;
  /** What sliced files state otherwise: `2 on Echo wall`. */
  otherwise: string | null;
  /** Whether the profile does not say it, and all of its sliced files say the same. */
  isStated: boolean;
}

/** One setting of every contender. */
export interface SettingRow {
  key: string;
  label: string;
  /** Whether anybody's is another's, or not its parent's. */
  isDifferent: boolean;
  cells: SettingCell[];
}

/** What a contender's sliced file states, and of which part. */
export interface StatedFile {
  contender_id: string;
  artefact: string;
  settings: Settings;
}

type Given = readonly { profile_id: string; key: string; value: string }[];

const labelOf = (key: string): string => {
  const { label, unit } = columnLabel(key);
  return unit === null ? label : `${label}, ${unit}`;
};

/** The settings of profiles by their normalised keys, as texts. */
function byProfile(settings: Given): Map<string, Map<string, string>> {
  const all = new Map<string, Map<string, string>>();
  for (const { profile_id, key, value } of settings) {
    const [name, known] = normaliseSetting(key, value);
    const own = all.get(profile_id) ?? new Map<string, string>();
    own.set(name, String(known));
    all.set(profile_id, own);
  }
  return all;
}

/**
 * The settings of a line-up, contender by contender; those in which anybody differs stand first.
 *
 * @param contenders in the order of their columns
 * @param stated what sliced files state: it counts before the profile where the two are not the same
 */
export function settingRows(
  contenders: readonly { contender_id: string; profile_id: string }[],
  profiles: readonly ShownProfile[],
  settings: Given,
  stated: readonly StatedFile[] = [],
): SettingRow[] {
  const known = byProfile(settings);
  const parentOf = new Map(profiles.map((row) => [row.profile_id, row.parent_id]));
  const keys = new Set<string>();
  for (const { profile_id } of contenders)
    for (const key of known.get(profile_id)?.keys() ?? []) keys.add(key);
  for (const file of stated) {
    for (const key of Object.keys(file.settings)) if (isKnownSetting(key)) keys.add(key);
  }
  const order = settingNames();
  const rows = [...keys].map((key): SettingRow => {
    const cells = contenders.map(({ contender_id, profile_id }): SettingCell => {
      const files = stated.filter((file) => file.contender_id === contender_id);
      const own = known.get(profile_id)?.get(key) ?? null;
      const agreed = own ?? agreedBy(files, key);
      const parent = parentOf.get(profile_id) ?? null;
      const stock = parent === null ? undefined : known.get(parent)?.get(key);
      const otherwise = conflictingSetting(key, agreed, files);
      const differs = parent !== null && (own ?? undefined) !== stock;
      return { value: agreed, differs, otherwise, isStated: own === null && agreed !== null };
    });
    const values = new Set(cells.flatMap((cell) => cell.value ?? []));
    const isDifferent =
      values.size > 1 || cells.some((cell) => cell.differs || cell.otherwise !== null);
    return { key, label: labelOf(key), isDifferent, cells };
  });
  const place = (key: string) => {
    const at = order.indexOf(key);
    return at < 0 ? order.length : at;
  };
  return rows.sort(
    (a, b) =>
      Number(b.isDifferent) - Number(a.isDifferent) ||
      place(a.key) - place(b.key) ||
      (a.key < b.key ? -1 : 1),
  );
}

/** What all of some files state; null where none says it, or they do not agree. */
function agreedBy(files: readonly StatedFile[], key: string): string | null {
  const said = new Set(files.flatMap(({ settings }) => settings[key] ?? []).map(String));
  const [only] = said;
  return said.size === 1 && only !== undefined ? only : null;
}

/** What files state that is not the profile's, with the parts that they are of. */
function conflictingSetting(
  key: string,
  value: string | null,
  files: readonly StatedFile[],
): string | null {
  const parts = new Map<string, Set<string>>();
  for (const { artefact, settings } of files) {
    const said = settings[key];
    if (said === undefined || String(said) === value) continue;
    const own = parts.get(String(said)) ?? new Set<string>();
    own.add(artefact);
    parts.set(String(said), own);
  }
  if (parts.size === 0) return null;
  return [...parts].map(([said, on]) => `${said} on ${[...on].sort().join(', ')}`).join('; ');
}

/**
 * How many settings a tuned profile changes of its parent, by what was entered and by what the sliced files of both
 * state; null of a profile without a parent.
 */
export function changesOf(
  profile: ShownProfile,
  settings: Given,
  stated: readonly StatedFile[] = [],
  contenders: readonly Pick<Contender, 'contender_id' | 'profile_id'>[] = [],
): number | null {
  if (profile.parent_id === null) return null;
  const known = byProfile(settings);
  const [own, stock] = [known.get(profile.profile_id), known.get(profile.parent_id)];
  const entered = new Set([...(own?.keys() ?? []), ...(stock?.keys() ?? [])]);
  const filesOf = (id: string) => {
    const users = new Set(
      contenders.flatMap((row) => (row.profile_id === id ? row.contender_id : [])),
    );
    return stated.filter((file) => users.has(file.contender_id));
  };
  const [ownFiles, stockFiles] = [filesOf(profile.profile_id), filesOf(profile.parent_id)];
  const inFiles = new Set(
    ownFiles.flatMap((file) => Object.keys(file.settings)).filter((key) => isKnownSetting(key)),
  );
  const said = (
    entries: ReadonlyMap<string, string> | undefined,
    files: readonly StatedFile[],
    key: string,
  ) => entries?.get(key) ?? agreedBy(files, key);
  return [...new Set([...entered, ...inFiles])].filter((key) => {
    const [mine, theirs] = [said(own, ownFiles, key), said(stock, stockFiles, key)];
    // What only a file of one of them states is no change: the other one may state it elsewhere.
    return entered.has(key) ? mine !== theirs : mine !== null && theirs !== null && mine !== theirs;
  }).length;
}

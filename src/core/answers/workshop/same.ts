import type { Facts, ItemKind } from './kinds';

/** A thing as it is compared with another. */
export interface KnownThing {
  uid: string;
  kind: ItemKind;
  facts: Facts;
  /** Identities and hashes of its meshes, of an artefact. */
  meshes: readonly string[];
  /** Settings of a profile, as one text; null where it has none. */
  settings: string | null;
  /** The studies that have it, by id. */
  studies: readonly string[];
}

/** Two things that are plainly the same, and by what. */
export interface SameProposal {
  one: string;
  other: string;
  /** What they have in common, in words. */
  by: string;
}

const text = (value: unknown): string | null =>
  typeof value === 'string' && value.trim() !== '' ? value.trim().toLowerCase() : null;

/** Whether two texts are the same; null where one is not known. */
function agree(a: unknown, b: unknown): boolean | null {
  const [x, y] = [text(a), text(b)];
  return x === null || y === null ? null : x === y;
}

/** What two things of a kind are plainly the same by, in words; null where they are not. */
function sameBy(one: KnownThing, other: KnownThing): string | null {
  const [a, b] = [one.facts, other.facts];
  const named = agree(a.name, b.name) === true;
  switch (one.kind) {
    case 'machine':
    case 'instrument': {
      const serial = agree(a.serial, b.serial);
      if (serial === true) return 'serial number';
      if (serial === false || !named) return null;
      if (one.kind === 'instrument') return 'name';
      return agree(a.maker, b.maker) === true ? 'name and maker' : null;
    }
    case 'material': {
      const same = ['type', 'maker', 'lot'].every((name) => agree(a[name], b[name]) === true);
      return same && agree(a.colour, b.colour) !== false ? 'type, maker and lot' : null;
    }
    case 'artefact': {
      if (one.meshes.some((mesh) => other.meshes.includes(mesh))) return 'mesh';
      const hasNone = one.meshes.length === 0 && other.meshes.length === 0;
      const sameVersion = (text(a.version) ?? '') === (text(b.version) ?? '');
      return hasNone && named && sameVersion ? 'name and version' : null;
    }
    case 'profile':
      return named && one.settings !== null && one.settings === other.settings
        ? 'name and settings'
        : null;
  }
}

/** Why two things cannot be one: both stand in one study, where they are told apart. */
export const besideEachOther = (
  one: Pick<KnownThing, 'studies'>,
  other: Pick<KnownThing, 'studies'>,
): string | null => one.studies.find((study) => other.studies.includes(study)) ?? null;

/**
 * Pairs of things that are plainly the same, to be asked about. Two that stand in one study are two;
 * so are two of whom a person has said it.
 *
 * @param apart pairs that a person told apart, each as `uid uid` in the order of the texts
 */
export function proposeSame(
  things: readonly KnownThing[],
  apart: ReadonlySet<string> = new Set(),
): SameProposal[] {
  return things.flatMap((one, at) =>
    things.slice(at + 1).flatMap((other) => {
      if (one.kind !== other.kind || besideEachOther(one, other) !== null) return [];
      if (apart.has(pairKey(one.uid, other.uid))) return [];
      const by = sameBy(one, other);
      return by === null ? [] : [{ one: one.uid, other: other.uid, by }];
    }),
  );
}

/** The name of a pair, whichever stands first. */
export const pairKey = (one: string, other: string): string =>
  one < other ? `${one} ${other}` : `${other} ${one}`;

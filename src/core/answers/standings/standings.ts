import type { Study } from '../../model/study';
import { rowsOfStudy, SHARED, type OpenRow, type SharedName, type StandingRow } from './row';
import { sameArtefacts, type KnownArtefact, type MeshKnown } from './same-artefact';

/** A study with what the meshes of its artefacts are known by. */
export interface StandingStudy {
  study: Study;
  /** By artefact id; one without a mesh is not here. */
  meshes: ReadonlyMap<string, MeshKnown>;
}

/** Everyone who ever printed an artefact, the truest first. A description, not a verdict. */
export interface Standings<Entry extends StandingRow = StandingRow> {
  /** Identity of its mesh as the first study has it; null where that has none. */
  identity: string | null;
  /** Name in the first study that has it. */
  name: string;
  rows: Entry[];
}

/** A row with the values of its prints, as it is drawn. */
export type DrawnRow = StandingRow &
  Pick<OpenRow, 'dots'> & {
    /** What is known of the row where it does not share it with the first. */
    own: Partial<Record<SharedName, (string | number)[]>>;
  };

/** One artefact of the standings, with which artefact of which study it is. */
export interface ArtefactStandings extends Standings<DrawnRow> {
  members: KnownArtefact[];
}

/**
 * Describes everyone who printed each artefact, over several studies, without comparing them: the
 * studies differ in lot, operator, instrument and light.
 *
 * @param alpha intervals are 1 − alpha
 * @returns artefacts in the order in which they are first met; rows by mean absolute deviation, those
 *   without one last, then by study and contender
 */
export function standingsOf(studies: readonly StandingStudy[], alpha = 0.05): ArtefactStandings[] {
  const rowsOf = studies.map(({ study }) => rowsOfStudy(study, alpha));
  const all = studies.flatMap(({ study, meshes }, at) =>
    study.tables.artefacts.map((artefact): KnownArtefact => ({
      study: at,
      artefact,
      mesh: meshes.get(artefact.artefact_id) ?? null,
    })),
  );
  return sameArtefacts(all).map((members) => {
    const rows = studies.flatMap((_, at) => {
      const own = members.filter((one) => one.study === at);
      const ids = new Set(own.map(({ artefact }) => artefact.artefact_id));
      return ids.size === 0 ? [] : (rowsOf[at]?.(ids) ?? []);
    });
    rows.sort(inOrder);
    const [first] = members;
    return {
      identity: first?.mesh?.identity ?? null,
      name: first?.artefact.name ?? '',
      rows: rows.map((row) => besideFirst(row, rows[0] ?? row)),
      members,
    };
  });
}

/** The standings as they are printed: without what only a drawing needs. */
export const plainStandings = (all: readonly ArtefactStandings[]): Standings[] =>
  all.map(({ identity, name, rows }) => ({
    identity,
    name,
    rows: rows.map(({ dots: _, own: __, ...row }) => row),
  }));

function inOrder(a: OpenRow, b: OpenRow): number {
  const [x, y] = [a.mae_mm.estimate ?? Infinity, b.mae_mm.estimate ?? Infinity];
  if (x !== y) return x < y ? -1 : 1;
  if (a.study !== b.study) return a.study < b.study ? -1 : 1;
  return a.contender < b.contender ? -1 : Number(a.contender > b.contender);
}

function besideFirst({ known, ...row }: OpenRow, first: OpenRow): DrawnRow {
  const { low, high } = row.mae_mm;
  const best = first.mae_mm.estimate;
  const isFirst = known === first.known;
  const holds = low === null || high === null || best === null ? null : low <= best && best <= high;
  const differs = SHARED.filter((name) => {
    const [own, others] = [known[name], first.known[name]];
    if (own.size === 0 || others.size === 0) return false;
    const shared = [...own].filter((value) => others.has(value)).length;
    // Of dimensions some are shared as a rule: under half of them makes it another measuring.
    return name === 'dimensions' ? shared < Math.max(own.size, others.size) / 2 : shared === 0;
  });
  return {
    ...row,
    near_best: isFirst || holds,
    differs,
    own: Object.fromEntries(differs.map((name) => [name, [...known[name]]])),
  };
}

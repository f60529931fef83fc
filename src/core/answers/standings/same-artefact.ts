import { groupBy, type Artefact } from '../../model/study';

/** What a mesh is known by: the identity of its solid, and the hash of its file. */
export interface MeshKnown {
  /** Null where its bytes are no mesh. */
  identity: string | null;
  /** SHA-256 of the file, lower case. */
  sha256: string | null;
}

/** An artefact of a study, with what its mesh is known by. */
export interface KnownArtefact {
  /** Which of the studies it belongs to. */
  study: number;
  artefact: Artefact;
  mesh: MeshKnown | null;
  /** The thing of the workshop that people say it is. */
  thing?: string;
}

/** What two rows must share one of to be the same artefact. */
function namesOf({ artefact, mesh, thing }: KnownArtefact): string[] {
  const sha = (mesh?.sha256 ?? artefact.mesh_sha256)?.toLowerCase() ?? null;
  const identity = mesh?.identity ?? null;
  const names = [
    ...(identity === null ? [] : [`mesh ${identity}`]),
    ...(sha === null ? [] : [`file ${sha}`]),
  ];
  return [
    ...(names.length > 0 ? names : [`id ${artefact.artefact_id} ${artefact.version ?? ''}`]),
    ...(thing === undefined ? [] : [`thing ${thing}`]),
  ];
}

/**
 * Groups artefacts that are the same: where a mesh identity or the hash of a mesh's file is; where
 * neither is known, where id and version are. The first of a group is the first given.
 */
export function sameArtefacts(all: readonly KnownArtefact[]): KnownArtefact[][] {
  const groupOfName = new Map<string, number>();
  // Each group points to the one that it was found to be the same as.
  const into: number[] = [];
  const root = (group: number): number => {
    let at = group;
    while (into[at] !== undefined && into[at] !== at) at = into[at] ?? at;
    return at;
  };
  const groups = all.map((one) => {
    const names = namesOf(one);
    const met = names.flatMap((name) => groupOfName.get(name) ?? []).map(root);
    const own = met.length > 0 ? Math.min(...met) : into.push(into.length) - 1;
    for (const group of met) into[group] = own;
    for (const name of names) groupOfName.set(name, own);
    return own;
  });
  return [...groupBy(all.keys(), (at) => root(groups[at] ?? 0)).entries()]
    .sort(([a], [b]) => a - b)
    .map(([, members]) => members.flatMap((at) => all[at] ?? []));
}

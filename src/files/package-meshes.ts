import { createHash } from 'node:crypto';
import { factsOfMesh, MeshError } from '../core/geometry/mesh';
import type { MeshKnown } from '../core/answers/standings';
import type { Study } from '../core/model/study';
import type { PackageFiles } from './packages';

/** No mesh that is read whole is larger. */
export const LARGEST_MESH = 300 * 1024 * 1024;

/**
 * What the meshes of a package's artefacts are known by, by artefact. A file that is not there is left
 * out; one that is no mesh is told to `onUnreadable` and known by its hash alone.
 */
export async function packageMeshes(
  study: Study,
  files: PackageFiles,
  onUnreadable: (path: string, why: string) => void,
): Promise<ReadonlyMap<string, MeshKnown>> {
  const there = new Set(files.paths);
  const meshes = new Map<string, MeshKnown>();
  for (const { artefact_id, mesh } of study.tables.artefacts) {
    if (mesh === null || !there.has(mesh)) continue;
    if (files.sizeOf(mesh) > LARGEST_MESH) {
      onUnreadable(mesh, 'is over 300 MB');
      continue;
    }
    const bytes = await files.read(mesh);
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    meshes.set(artefact_id, { identity: identityOf(bytes, mesh, onUnreadable), sha256 });
  }
  return meshes;
}

function identityOf(
  bytes: Uint8Array,
  path: string,
  onUnreadable: (path: string, why: string) => void,
): string | null {
  try {
    return factsOfMesh(bytes, path).identity;
  } catch (error) {
    if (!(error instanceof MeshError)) throw error;
    onUnreadable(path, error.message);
    return null;
  }
}

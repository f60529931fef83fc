import type { PartRows } from '../../core/geometry/parts';
import type { KeptMesh } from '../../contract/artefacts';
import { callApi, sendBytes } from '../kit/request';

/**
 * Sends a mesh to the study's files.
 *
 * @param evenIfSame whether it is kept though an artefact has the same solid
 * @throws ApiError, UnreachableError
 */
export async function sendMesh(
  studyId: string,
  name: string,
  bytes: Uint8Array,
  evenIfSame: boolean,
): Promise<KeptMesh> {
  const query = `name=${encodeURIComponent(name)}${evenIfSame ? '&same=keep' : ''}`;
  return sendBytes<KeptMesh>(
    'POST',
    `/studies/${studyId}/meshes?${query}`,
    bytes as Uint8Array<ArrayBuffer>,
  );
}

/** Adds an artefact with its mesh and what is looked at on it; gives the id that it got. */
export async function sendArtefact(
  studyId: string,
  artefact: { name: string; notes: string | null },
  mesh: string | null,
  rows: Partial<PartRows>,
): Promise<string> {
  const content = {
    artefact: { ...artefact, version: '1', mesh, mesh_sha256: null },
    ...rows,
  };
  const path = `/studies/${studyId}/artefacts`;
  return (await callApi<{ artefact_id: string }>('POST', path, content)).artefact_id;
}

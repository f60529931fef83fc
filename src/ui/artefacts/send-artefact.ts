import type { PartRows } from '../../core/parts';
import type { KeptMesh } from '../../server/artefacts/meshes';
import { ApiError, callApi, UnreachableError } from '../lib/api';

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
  const address = `/api/v1/studies/${studyId}/meshes?${query}`;
  const response = await fetch(address, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: bytes as Uint8Array<ArrayBuffer>,
  }).catch(() => {
    throw new UnreachableError('The server does not answer.');
  });
  const answer = (await response.json().catch(() => null)) as { detail?: string } | null;
  if (!response.ok) {
    throw new ApiError(response.status, answer?.detail ?? 'The server could not take the mesh.');
  }
  return answer as unknown as KeptMesh;
}

/** Adds an artefact with its mesh and what is looked at on it; gives its id. */
export async function sendArtefact(
  studyId: string,
  artefact: { artefact_id: string; name: string; notes: string | null },
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

/** A name as an id that is not taken: `Stair block` → `stair-block`, `stair-block-2`. */
export function idFor(name: string, taken: readonly string[]): string {
  const stem =
    name
      .normalize('NFKD')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 50) || 'artefact';
  let id = stem;
  for (let number = 2; taken.includes(id); number += 1) id = `${stem}-${number}`;
  return id;
}

/** Hands bytes to the person as a file. */
export function saveFile(name: string, bytes: Uint8Array, type: string): void {
  const url = URL.createObjectURL(new Blob([bytes as Uint8Array<ArrayBuffer>], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

import { codeOf, refused, type Refused } from '../../core/model/faults';
import { bufferOf } from '../../files/buffers';
import { createHash } from 'node:crypto';
import type { Readable } from 'node:stream';
import type { MeshSheet } from '../../core/geometry/mesh';
import {
  findFile,
  findMeshSheet,
  findRow,
  findStudy,
  linkFile,
  listFiles,
  listRows,
  readFile,
  storeContent,
  storeMeshSheet,
  writeStudy,
  type StudyFile,
} from '../../data';
import type { MeshOutcome, MeshTask } from '../../files/mesh-task';
import type { App } from '../app';
import { RequestError } from '../http/problem';

/** The largest mesh that a study takes in. */
export const LARGEST_MESH_MB = 64;
/** A mesh that takes longer than this is given up. */
const PATIENCE_MS = 20_000;

/** Where a mesh lies among a study's files. */
export interface KeptMesh {
  /** Null where it was not kept, another artefact having the same. */
  path: string | null;
  /** The artefact whose mesh has the same vertices, where there is one. */
  sameAs: string | null;
}

async function onThread(app: App, task: MeshTask): Promise<Exclude<MeshOutcome, Refused>> {
  const signal = AbortSignal.timeout(PATIENCE_MS);
  const outcome = await app.drawers.run(task, { signal }).catch((error: unknown) => {
    const isLate = error instanceof Error && error.name === 'AbortError';
    if (!isLate && codeOf(error) !== 'ERR_WORKER_OUT_OF_MEMORY') throw error;
    return refused('is too much to be drawn: make it coarser');
  });
  if (outcome.isRefused) throw new RequestError(422, `The mesh ${outcome.message}.`);
  return outcome;
}

/**
 * Reads a mesh and keeps it among the study's files.
 *
 * @param evenIfSame whether it is kept though an artefact of the study has the same solid
 */
export async function storeMesh(
  app: App,
  studyId: string,
  name: string,
  content: Buffer,
  evenIfSame: boolean,
): Promise<KeptMesh> {
  const { db, drawingEdition } = app;
  await findStudy(db, studyId);
  const sha256 = createHash('sha256').update(content).digest('hex');
  const made = await onThread(app, { sheet: { name, bytes: content } });
  if (!('sheet' in made)) throw new Error('the thread did not draw');
  await storeMeshSheet(db, sha256, drawingEdition, made.sheet);
  const sameAs = evenIfSame ? null : await twinOf(app, studyId, content, name, made.sheet);
  if (sameAs !== null) return { path: null, sameAs };
  const path = `meshes/${sha256.slice(0, 12)}.${made.sheet.facts.format.replace(/-.*/, '')}`;
  await storeContent(db, [content]);
  await writeStudy(db, studyId, null, (write) => linkFile(write, path, sha256));
  return { path, sameAs };
}

/** The artefact whose mesh is the same solid: equal in identity, or as near, and in every vertex. */
async function twinOf(
  app: App,
  studyId: string,
  content: Buffer,
  name: string,
  { facts }: MeshSheet,
): Promise<string | null> {
  const files = await listFiles(app.db, studyId);
  for (const row of await listRows(app.db, studyId, 'artefacts')) {
    const file = files.find(({ path }) => path === row.mesh);
    const other = file && (await sheetOfFile(app, file));
    if (!other) continue;
    const isCandidate =
      other.facts.identity === facts.identity ||
      (other.facts.triangles === facts.triangles &&
        other.facts.vertices === facts.vertices &&
        [...other.facts.bbox_mm.min, ...other.facts.bbox_mm.max].every(
          (value, at) =>
            Math.abs(value - ([...facts.bbox_mm.min, ...facts.bbox_mm.max][at] ?? 0)) <= 0.01,
        ));
    if (!isCandidate) continue;
    const theirs = { name: file.path, bytes: await contentOf(app, file) };
    const outcome = await onThread(app, { same: [{ name, bytes: content }, theirs] });
    if ('same' in outcome && outcome.same) return row.artefact_id;
  }
  return null;
}

const contentOf = (app: App, { sha256 }: StudyFile): Promise<Buffer> =>
  bufferOf(readFile(app.db, sha256));

/** What a mesh file shows, drawn once; null where it cannot be read. */
export async function sheetOfFile(app: App, file: StudyFile): Promise<MeshSheet | null> {
  const { db, drawingEdition, log } = app;
  const kept = await findMeshSheet<MeshSheet>(db, file.sha256, drawingEdition);
  if (kept) return kept;
  if (file.bytes > LARGEST_MESH_MB * 1024 * 1024) return null;
  try {
    const made = await onThread(app, {
      sheet: { name: file.path, bytes: await contentOf(app, file) },
    });
    if (!('sheet' in made)) return null;
    await storeMeshSheet(db, file.sha256, drawingEdition, made.sheet);
    return made.sheet;
  } catch (error) {
    if (error instanceof RequestError) log.warn({ path: file.path }, error.message);
    else throw error;
    return null;
  }
}

/** The mesh of an artefact among the study's files. @throws NotFoundError for an unknown artefact */
async function meshOfArtefact(
  app: App,
  studyId: string,
  artefactId: string,
): Promise<StudyFile | null> {
  const { db } = app;
  await findStudy(db, studyId);
  const { mesh } = await findRow(db, studyId, 'artefacts', { artefact_id: artefactId });
  return mesh === null ? null : findFile(db, studyId, mesh);
}

/** The mesh of an artefact as a stream, with its ending; null where it has none. */
export async function openMesh(
  app: App,
  studyId: string,
  artefactId: string,
): Promise<{ content: Readable; ending: string } | null> {
  const file = await meshOfArtefact(app, studyId, artefactId);
  if (!file) return null;
  return {
    content: readFile(app.db, file.sha256),
    ending: file.path.split('.').at(-1) ?? 'stl',
  };
}

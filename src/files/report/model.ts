import { WrongInputError } from '../../core/model/faults';
import { buffersOf } from '../buffers';
import { createHash } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import { evaluate } from '../../core/answers/results';
import { drawableOf, drawFrom, readMesh, VIEWS } from '../../core/geometry/mesh';
import { formatFault, readPackage } from '../../core/model/package';
import type { Results } from '../../core/answers/results';
import {
  buildReport,
  changesBetween,
  openReport,
  revisionFigures,
  type ArtefactDrawing,
  type ReportData,
  type ReportModel,
} from '../../core/text/report';
import { TABLE_NAMES, type Study } from '../../core/model/study';
import { openPackage, type PackageFiles } from '../packages';
import { packageToolpaths } from '../sliced';
import type { ReportOutcome, ReportTask } from './task';

/** A study in a frozen package, with its results. */
export interface ComputedStudy {
  study: Study;
  results: Results;
  drawings: Map<string, ArtefactDrawing['drawn']>;
  files: Record<string, string>;
}

/** The package of a report cannot be read, with what is wrong with it. */
export class FrozenDataError extends WrongInputError {
  override name = 'FrozenDataError';
}

/**
 * Computes everything that a report says from its data.
 *
 * @throws FrozenDataError, PackageError
 */
export async function computeFrozen(
  path: string,
  options: { alpha?: number; seed?: number } = {},
): Promise<ComputedStudy> {
  const files = await openPackage(path);
  try {
    const { content, faults } = await readPackage(files);
    if (!content) throw new FrozenDataError(faults.slice(0, 20).map(formatFault).join('\n'));
    const unread = () => undefined;
    const { settings: sliced, toolpaths } = await packageToolpaths(content.study, files, unread);
    const study = { ...content.study, sliced };
    const results = evaluate(study, { ...options, toolpaths });
    const drawings = await drawArtefacts(study, files);
    return { study, results, drawings, files: await hashesOf(files) };
  } finally {
    await files.close();
  }
}

async function hashesOf(files: PackageFiles): Promise<Record<string, string>> {
  const found: Record<string, string> = {};
  for (const path of [...files.paths].sort()) {
    const hash = createHash('sha256');
    for await (const chunk of buffersOf(await files.stream(path))) hash.update(chunk);
    found[path] = hash.digest('hex');
  }
  return found;
}

/** Artefacts from the front; one whose mesh cannot be drawn has no drawing. */
async function drawArtefacts(
  study: Study,
  files: PackageFiles,
): Promise<Map<string, ArtefactDrawing['drawn']>> {
  const drawings = new Map<string, ArtefactDrawing['drawn']>();
  for (const { artefact_id, mesh } of study.tables.artefacts) {
    if (mesh === null || !files.paths.includes(mesh)) continue;
    try {
      const { soup } = readMesh(await files.read(mesh), mesh);
      const { visible, box } = drawFrom(drawableOf(soup), VIEWS.front);
      const { left: x, top: y, width: w, height: h } = box;
      drawings.set(artefact_id, { path: visible, x, y, w, h });
    } catch {
      drawings.set(artefact_id, null);
    }
  }
  return drawings;
}

/** Reads the model that another thread wrote. */
export const readModel = async (path: string): Promise<ReportModel> =>
  JSON.parse(await readFile(path, 'utf8')) as ReportModel;

/** Makes the model of a report from its frozen package, and writes it where the forms find it. */
export async function modelOf(
  task: Extract<ReportTask, { do: 'model' }>,
): Promise<Extract<ReportOutcome, { model: unknown }>> {
  const bytes = await readFile(task.data);
  const { study, results, drawings, files } = await computeFrozen(task.data);
  const data: ReportData = {
    sha256: createHash('sha256').update(bytes).digest('hex'),
    bytes: bytes.length,
    tables: Object.fromEntries(TABLE_NAMES.map((table) => [table, study.tables[table].length])),
    files,
  };
  const facts = { number: task.number, frozen_at: task.frozenAt, data, drawings };
  const plain = buildReport(openReport(study, results), { ...facts, since: null });
  const figures = revisionFigures(plain, study);
  const since = task.before && changesBetween(task.before, figures);
  const model = { ...plain, since };
  await writeFile(task.into, JSON.stringify(model));
  return { model, figures };
}

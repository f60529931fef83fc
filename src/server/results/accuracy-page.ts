import type { AccuracySummary } from '../../core/answers/results';
import { codedSpecimens, listRows } from '../../data';
import type { App } from '../app';

/** The sticker codes of a study's specimens, by id. */
export async function specimenCodes(app: App, studyId: string): Promise<Record<string, string>> {
  const specimens = await codedSpecimens(app.db, studyId);
  return Object.fromEntries(specimens.map((row) => [row.specimen_id, row.code]));
}

/** What the instruments of a study are worth, in a sentence. */
export async function instrumentSentence(
  app: App,
  studyId: string,
  accuracy: readonly Pick<AccuracySummary, 'repeatability_mm' | 'readings'>[],
): Promise<string> {
  const instruments = await listRows(app.db, studyId, 'instruments');
  const said = instruments.map((row) => {
    const parts = [
      row.resolution_mm === null ? null : `${row.resolution_mm} mm`,
      row.expanded_uncertainty_mm === null
        ? 'no certificate'
        : `U ${row.expanded_uncertainty_mm} mm`,
    ];
    return `${row.name} ${parts.filter(Boolean).join(', ')}`;
  });
  const repeatability = accuracy.flatMap((one) => one.repeatability_mm ?? []);
  const repeated =
    repeatability.length > 0
      ? ` Repeatability ${Math.min(...repeatability).toFixed(3)} to ` +
        `${Math.max(...repeatability).toFixed(3)} mm from dimensions read twice.`
      : '';
  return `Instruments: ${said.length > 0 ? said.join('; ') : 'none named'}.${repeated}`;
}

/** The artefacts on which something is measured. */
export async function artefactsWithDimensions(
  app: App,
  studyId: string,
): Promise<ReadonlySet<string>> {
  const rows = await listRows(app.db, studyId, 'dimensions');
  return new Set(rows.map((row) => row.artefact_id));
}

/** The names of dimensions, by `artefact/dimension`. */
export async function dimensionNames(app: App, studyId: string): Promise<Record<string, string>> {
  const rows = await listRows(app.db, studyId, 'dimensions');
  return Object.fromEntries(
    rows.map((row) => [`${row.artefact_id}/${row.dimension_id}`, row.name]),
  );
}

/** What was fitted or changed on each contender, where it says. */
export async function contenderChanges(app: App, studyId: string): Promise<Record<string, string>> {
  const rows = await listRows(app.db, studyId, 'contenders');
  return Object.fromEntries(
    rows.flatMap((row) => (row.change === null ? [] : [[row.contender_id, row.change]])),
  );
}

import { VIEW_NAMES, type MeshSheet } from '../../core/geometry/mesh';
import { groupBy } from '../../core/model/study';
import {
  findStudy,
  listFiles,
  listPictures,
  listSpecimenFacts,
  listTables,
  type Picture,
  type SpecimenFacts,
  type Stored,
} from '../../data';
import type { App } from '../app';
import { sheetOfFile } from '../artefacts';
import { registerPhoto } from './registration';
import { boxOfMarks } from './views';
import type { Mark, ViewBox } from '../../core/measures/image';
import { RegistrationError } from '../../core/measures/image';

/** A measure on a photo as it is shown beside it. */
export interface ShownMeasure extends Stored<'photo_measures'> {
  values: Stored<'photo_values'>[];
}

/** How a photo lies on its view. */
export interface ShownRegistration {
  kind: string;
  toView: readonly number[];
  toPicture: readonly number[];
  px_per_mm: number;
  misfit_mm: number | null;
  tilt_deg: number;
}

/** A photo of a study: where it is filed, how it is tied, what was measured on it. */
export interface ShownPhoto extends Omit<Picture, 'codes' | 'sha256'> {
  /** Which content it is: another photo of the same name has another one. */
  version: string;
  /** Codes that were read in it, in words. */
  codes: string[];
  filed: Stored<'photos'> | null;
  marks: Mark[];
  registration: ShownRegistration | null;
  /** Whether its view is laid flat as its marks say. */
  isRectified: boolean;
  measures: ShownMeasure[];
}

export type Views = MeshSheet['sides'];

export interface PhotosData {
  photos: ShownPhoto[];
  specimens: SpecimenFacts[];
  /** Drawings of the artefacts of which there are specimens; those without a mesh have none. */
  views: Record<string, Views>;
}

/** Photos of a study with all that is known of them. */
export async function photosData(app: App, studyId: string): Promise<PhotosData> {
  const { db } = app;
  await findStudy(db, studyId);
  const [pictures, specimens, tables, files] = await Promise.all([
    listPictures(db, studyId),
    listSpecimenFacts(db, studyId),
    listTables(db, studyId, [
      'artefacts',
      'photos',
      'photo_marks',
      'photo_measures',
      'photo_values',
    ]),
    listFiles(db, studyId),
  ]);
  const views = await viewsOf(app, tables.artefacts, specimens, files);
  const artefactOf = new Map(specimens.map((one) => [one.specimen_id, one.artefact_id]));
  const filed = new Map(tables.photos.map((row) => [row.path, row]));
  const marks = groupBy(tables.photo_marks, (row) => row.path);
  const measures = groupBy(tables.photo_measures, (row) => row.path);
  const values = groupBy(tables.photo_values, (row) => row.measure_id);
  const photos = pictures.map(({ codes, sha256, ...picture }): ShownPhoto => {
    const row = filed.get(picture.path) ?? null;
    const own = marks.get(picture.path) ?? [];
    const sides = row && views[artefactOf.get(row.specimen_id) ?? ''];
    const [shown, edition] = registrationOf(own, sides && boxOf(sides, row.view));
    return {
      ...picture,
      version: sha256.slice(0, 12),
      codes: (codes ?? []).map(({ text }) => text),
      filed: row,
      marks: own.map(({ u_px, v_px, x_mm, y_mm }) => ({ u_px, v_px, x_mm, y_mm })),
      registration: shown,
      isRectified: edition !== null && picture.laid?.edition === edition,
      measures: (measures.get(picture.path) ?? []).map((one) => ({
        ...one,
        values: values.get(one.measure_id) ?? [],
      })),
    };
  });
  return { photos, specimens, views };
}

async function viewsOf(
  app: App,
  artefacts: readonly Stored<'artefacts'>[],
  specimens: readonly SpecimenFacts[],
  files: Awaited<ReturnType<typeof listFiles>>,
): Promise<Record<string, Views>> {
  const wanted = new Set(specimens.map((one) => one.artefact_id));
  const found = artefacts
    .filter(({ artefact_id }) => wanted.has(artefact_id))
    .map(async ({ artefact_id, mesh }) => {
      const file = files.find(({ path }) => path === mesh);
      const sheet = file && (await sheetOfFile(app, file));
      return sheet ? [[artefact_id, sheet.sides] as const] : [];
    });
  return Object.fromEntries((await Promise.all(found)).flat());
}

function boxOf(sides: Views, view: string | null): ViewBox | null {
  const name = VIEW_NAMES.find((one) => one === view);
  if (!name) return null;
  const { left, top, width, height } = sides[name].box;
  return { x: left, y: -(top + height), w: width, h: height };
}

function registrationOf(
  marks: readonly Mark[],
  box: ViewBox | null | undefined,
): [ShownRegistration | null, string | null] {
  if (marks.length < 2) return [null, null];
  try {
    const { registration, edition } = registerPhoto(marks, box ?? boxOfMarks(marks));
    return [registration, edition];
  } catch (error) {
    if (error instanceof RegistrationError) return [null, null];
    throw error;
  }
}

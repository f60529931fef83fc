import type { ResultParts } from '../../core/answers/results';
import { listTables, placedSpecimens } from '../../data';
import type { App } from '../app';
import { resultsOf } from './results';

/** One specimen on the plate: where it lay, from the plate's middle, and what it deviates. */
export interface PlatePoint {
  x: number;
  y: number;
  deviation_mm: number;
  code: string;
}

export interface PlatePage {
  /** What has a plate: `artefact/dimension` with its name. */
  choices: { key: string; name: string }[];
  chosen: string;
  /** Every contender's specimens of the chosen dimension. */
  points: Record<string, PlatePoint[]>;
  fits: Record<string, NonNullable<ResultParts['plate']>[string][string]>;
}

/** What the plate map shows; null where no dimension lies on several places of a plate. */
export async function platePage(
  app: App,
  studyId: string,
  asked: string | null,
  plate: ResultParts['plate'],
): Promise<PlatePage | null> {
  // A part that always stood in the same place shows nothing of the plate.
  const mapped = Object.values(plate ?? {}).flatMap((own) =>
    Object.keys(own).filter((key) => own[key]?.gradient_x_um_per_100mm != null),
  );
  const keys = [...new Set(mapped)].sort();
  const chosen = keys.find((key) => key === asked) ?? keys[0];
  if (!plate || chosen === undefined) return null;
  const [artefactId = '', dimensionId = ''] = chosen.split('/');
  const { db } = app;
  const [{ deviations }, specimens, { dimensions, artefacts }] = await Promise.all([
    resultsOf(app, { studyId, reference: null }, ['deviations']),
    placedSpecimens(db, studyId, artefactId),
    listTables(db, studyId, ['dimensions', 'artefacts']),
  ]);
  const placed = new Map(specimens.map((row) => [row.specimen_id, row]));
  const points = Object.fromEntries(
    Object.entries(deviations ?? {}).map(([contender, own]) => [
      contender,
      (own[dimensionId]?.specimens ?? []).flatMap((specimen_id, at): PlatePoint[] => {
        const specimen = placed.get(specimen_id);
        const deviation_mm = own[dimensionId]?.deviations_mm[at];
        if (deviation_mm === undefined || !specimen) return [];
        const { plate_x_mm: x, plate_y_mm: y, code } = specimen;
        return [{ x, y, deviation_mm, code: code ?? specimen_id }];
      }),
    ]),
  );
  const nameOf = (key: string): string => {
    const [artefact, dimension] = key.split('/');
    const named = dimensions.find(
      (row) => row.artefact_id === artefact && row.dimension_id === dimension,
    );
    const part = artefacts.find((row) => row.artefact_id === artefact);
    return `${part?.name ?? artefact ?? ''}, ${named?.name ?? dimension ?? ''}`;
  };
  return {
    choices: keys.map((key) => ({ key, name: nameOf(key) })),
    chosen,
    points,
    fits: Object.fromEntries(
      Object.entries(plate).flatMap(([contender, own]) =>
        own[chosen] ? [[contender, own[chosen]]] : [],
      ),
    ),
  };
}

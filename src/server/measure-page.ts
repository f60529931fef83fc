import { listRows, listSpecimenFacts, type SpecimenFacts } from '../data';
import { app } from './app';

/** A dimension as the bench shows it. */
export interface BenchDimension {
  id: string;
  name: string;
  axis: string;
  kind: string;
  nominal_mm: number;
  lower_tol_mm: number | null;
  upper_tol_mm: number | null;
}

/** An instrument as the bench offers it. */
export interface BenchInstrument {
  id: string;
  name: string;
  resolution_mm: number | null;
  zero_mm: number | null;
}

/** What the bench needs to measure with: specimens, what is measured on them, by which instrument. */
export interface MeasureBenchData {
  specimens: SpecimenFacts[];
  dimensions: Record<string, BenchDimension[]>;
  instruments: BenchInstrument[];
}

const AXIS_ORDER = ['x', 'y', 'z', 'none'];
const KIND_ORDER = ['external', 'boss', 'height', 'diagonal', 'internal', 'hole'];

/** Along one axis after another, outer jaws before inner ones: so the caliper turns least. */
const benchOrder = ({ axis, kind }: BenchDimension): number =>
  10 * AXIS_ORDER.indexOf(axis) + KIND_ORDER.indexOf(kind);

/** Reads what the bench needs. Specimens of artefacts without dimensions are left out. */
export async function measureBenchData(studyId: string): Promise<MeasureBenchData> {
  const { db } = app();
  const [specimens, dimensions, instruments] = await Promise.all([
    listSpecimenFacts(db, studyId),
    listRows(db, studyId, 'dimensions'),
    listRows(db, studyId, 'instruments'),
  ]);
  const byArtefact: Record<string, BenchDimension[]> = {};
  for (const row of dimensions) {
    (byArtefact[String(row.artefact_id)] ??= []).push({
      id: String(row.dimension_id),
      name: String(row.name),
      axis: String(row.axis),
      kind: String(row.kind),
      nominal_mm: Number(row.nominal_mm),
      lower_tol_mm: row.lower_tol_mm as number | null,
      upper_tol_mm: row.upper_tol_mm as number | null,
    });
  }
  for (const list of Object.values(byArtefact)) list.sort((a, b) => benchOrder(a) - benchOrder(b));
  return {
    specimens: specimens.filter((specimen) => byArtefact[specimen.artefact_id]),
    dimensions: byArtefact,
    instruments: instruments.map((row) => ({
      id: String(row.instrument_id),
      name: String(row.name),
      resolution_mm: row.resolution_mm as number | null,
      zero_mm: row.zero_mm as number | null,
    })),
  };
}

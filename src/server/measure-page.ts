import type { MeshSheet } from '../core/mesh';
import { seededDraws, shuffled } from '../core/stats';
import {
  findStudy,
  listFiles,
  listRows,
  listSpecimenFacts,
  type SpecimenFacts,
  type VersionedRow,
} from '../data';
import { app } from './app';
import { sheetOfFile } from './artefacts';

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

/** What an artefact looks like, and where its dimensions are on it. */
export interface BenchDrawing {
  sides: Pick<MeshSheet['sides'], 'front' | 'left' | 'top'>;
  dimensions: VersionedRow[];
  places: VersionedRow[];
}

/** A look at the closed jaws. */
export interface BenchZero {
  instrument_id: string;
  at: string;
  value_mm: number;
}

/** What the bench needs to measure with: specimens, what is measured on them, by which instrument. */
export interface MeasureBenchData {
  specimens: SpecimenFacts[];
  dimensions: Record<string, BenchDimension[]>;
  instruments: BenchInstrument[];
  /** By artefact; those without a mesh are not here. */
  drawings: Record<string, BenchDrawing>;
  /** How often each dimension of a specimen is read, by the plan. */
  readings: number;
  /** The specimens in an order that nobody chose, drawn by the plan's seed. */
  shuffled: string[];
  zeros: BenchZero[];
}

const AXIS_ORDER = ['x', 'y', 'z', 'none'];
const KIND_ORDER = ['external', 'boss', 'height', 'diagonal', 'internal', 'hole'];

/** Along one axis after another, outer jaws before inner ones: so the caliper turns least. */
const benchOrder = ({ axis, kind }: BenchDimension): number =>
  10 * AXIS_ORDER.indexOf(axis) + KIND_ORDER.indexOf(kind);

/** Reads what the bench needs. Specimens of artefacts without dimensions are left out. */
export async function measureBenchData(studyId: string): Promise<MeasureBenchData> {
  const { db } = app();
  const [specimens, all, retired, instruments, zeros, { plan }] = await Promise.all([
    listSpecimenFacts(db, studyId),
    listRows(db, studyId, 'dimensions'),
    listRows(db, studyId, 'retired_dimensions'),
    listRows(db, studyId, 'instruments'),
    listRows(db, studyId, 'zero_checks'),
    findStudy(db, studyId),
  ]);
  const dimensions = all.filter(
    (row) =>
      !retired.some(
        (one) => one.artefact_id === row.artefact_id && one.dimension_id === row.dimension_id,
      ),
  );
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
    drawings: await drawingsOf(studyId, dimensions, new Set(Object.keys(byArtefact))),
    readings: plan?.readings ?? 1,
    shuffled: shuffled(specimens, seededDraws(plan?.seed ?? 1)).map((one) => one.specimen_id),
    zeros: zeros.map((row) => ({
      instrument_id: String(row.instrument_id),
      at: String(row.at),
      value_mm: Number(row.value_mm),
    })),
  };
}

async function drawingsOf(
  studyId: string,
  dimensions: readonly VersionedRow[],
  wanted: ReadonlySet<string>,
): Promise<Record<string, BenchDrawing>> {
  const { db } = app();
  const [artefacts, files, places] = await Promise.all([
    listRows(db, studyId, 'artefacts'),
    listFiles(db, studyId),
    listRows(db, studyId, 'dimension_places'),
  ]);
  const drawings: Record<string, BenchDrawing> = {};
  for (const { artefact_id, mesh } of artefacts) {
    const file = files.find(({ path }) => path === mesh);
    const sheet = file && wanted.has(String(artefact_id)) ? await sheetOfFile(file) : null;
    if (!sheet) continue;
    drawings[String(artefact_id)] = {
      sides: { front: sheet.sides.front, left: sheet.sides.left, top: sheet.sides.top },
      dimensions: dimensions.filter((row) => row.artefact_id === artefact_id),
      places: places.filter((row) => row.artefact_id === artefact_id),
    };
  }
  return drawings;
}

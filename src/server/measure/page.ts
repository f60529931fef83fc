import { seededDraws, shuffled } from '../../core/statistics/stats';
import { withinArtefact } from '../../core/model/study';
import {
  findStudy,
  listSpecimenFacts,
  listTables,
  type SpecimenFacts,
  type Stored,
} from '../../data';
import type { App } from '../app';
import { sidesOfArtefacts, type DrawnSides } from './drawings';

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
  sides: DrawnSides;
  dimensions: Stored<'dimensions'>[];
  places: Stored<'dimension_places'>[];
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
export async function measureBenchData(app: App, studyId: string): Promise<MeasureBenchData> {
  const { db } = app;
  const [specimens, tables, { plan }] = await Promise.all([
    listSpecimenFacts(db, studyId),
    listTables(db, studyId, ['dimensions', 'retired_dimensions', 'instruments', 'zero_checks']),
    findStudy(db, studyId),
  ]);
  const retired = new Set(
    tables.retired_dimensions.map((row) => withinArtefact(row.artefact_id, row.dimension_id)),
  );
  const dimensions = tables.dimensions.filter(
    (row) => !retired.has(withinArtefact(row.artefact_id, row.dimension_id)),
  );
  const byArtefact: Record<string, BenchDimension[]> = {};
  for (const { artefact_id, dimension_id: id, row_version: _, ...facts } of dimensions) {
    (byArtefact[artefact_id] ??= []).push({ id, ...facts });
  }
  for (const list of Object.values(byArtefact)) list.sort((a, b) => benchOrder(a) - benchOrder(b));
  return {
    specimens: specimens.filter((specimen) => byArtefact[specimen.artefact_id]),
    dimensions: byArtefact,
    instruments: tables.instruments.map(({ instrument_id: id, name, resolution_mm, zero_mm }) => ({
      id,
      name,
      resolution_mm,
      zero_mm,
    })),
    drawings: await drawingsOf(app, studyId, dimensions, new Set(Object.keys(byArtefact))),
    readings: plan?.readings ?? 1,
    shuffled: shuffled(specimens, seededDraws(plan?.seed ?? 1)).map((one) => one.specimen_id),
    zeros: tables.zero_checks.map(({ instrument_id, at, value_mm }) => ({
      instrument_id,
      at,
      value_mm,
    })),
  };
}

async function drawingsOf(
  app: App,
  studyId: string,
  dimensions: readonly Stored<'dimensions'>[],
  wanted: ReadonlySet<string>,
): Promise<Record<string, BenchDrawing>> {
  const [{ dimension_places: places }, sides] = await Promise.all([
    listTables(app.db, studyId, ['dimension_places']),
    sidesOfArtefacts(app, studyId, wanted),
  ]);
  return Object.fromEntries(
    Object.entries(sides).map(([artefactId, own]) => [
      artefactId,
      {
        sides: own,
        dimensions: dimensions.filter((row) => row.artefact_id === artefactId),
        places: places.filter((row) => row.artefact_id === artefactId),
      },
    ]),
  );
}

/** What readings from a spreadsheet can name: all specimens, measured or not. */
export async function foreignNames(app: App, studyId: string) {
  const [{ dimensions, instruments }, specimens] = await Promise.all([
    measureBenchData(app, studyId),
    listSpecimenFacts(app.db, studyId),
  ]);
  return {
    specimens: specimens.map(({ specimen_id: id, code, artefact_id: artefact }) => ({
      id,
      code,
      artefact,
    })),
    dimensions: Object.entries(dimensions).flatMap(([artefact, own]) =>
      own.map(({ id, name }) => ({ artefact, id, name })),
    ),
    instruments: instruments.map(({ id, name }) => ({ id, name })),
  };
}

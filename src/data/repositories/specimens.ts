import * as z from 'zod';
import { query, type Database } from '../database';

/** A specimen with what it is a copy of, and how much of it is measured. */
const specimenFactsRow = z.strictObject({
  specimen_id: z.string(),
  code: z.string().nullable(),
  copy: z.number().nullable(),
  print_id: z.string(),
  repeat: z.number(),
  contender_id: z.string(),
  artefact_id: z.string(),
  artefact: z.string(),
  /** Dimensions with a reading that counts, or that cannot be measured. */
  measured: z.number(),
});
export type SpecimenFacts = z.infer<typeof specimenFactsRow>;

/** The specimens of a study, in the order of their prints and copies. */
export const listSpecimenFacts = (db: Database, studyId: string): Promise<SpecimenFacts[]> =>
  query(
    db,
    specimenFactsRow,
    // Counted once, whatever the planner knows of the tables.
    `with done as materialized (
       select specimen_id, count(distinct dimension_id)::int as n from (
         select specimen_id, dimension_id from readings
           where study_id = $1 and superseded_at is null
         union select specimen_id, dimension_id from unmeasured where study_id = $1
       ) cells group by specimen_id
     )
     select s.specimen_id, s.code, s.copy, s.print_id, p.repeat, p.contender_id, p.artefact_id,
       a.name as artefact, coalesce(done.n, 0) as measured
     from specimens s
     join prints p on p.study_id = s.study_id and p.print_id = s.print_id
     join artefacts a on a.study_id = s.study_id and a.artefact_id = p.artefact_id
     left join done on done.specimen_id = s.specimen_id
     where s.study_id = $1
     order by a.ordinal, p.ordinal, s.copy nulls first, s.ordinal`,
    [studyId],
  );

/** What is known of one specimen's dimensions. */
export interface SpecimenMeasurements {
  readings: {
    reading_id: string;
    dimension_id: string;
    trial: number;
    value_mm: number;
    instrument_id: string | null;
    operator: string | null;
  }[];
  unmeasured: { dimension_id: string; reason: string | null; row_version: number }[];
}

const specimenMeasurementsRow = z.strictObject({
  reading_id: z.string(),
  dimension_id: z.string(),
  trial: z.number(),
  value_mm: z.number(),
  instrument_id: z.string().nullable(),
  operator: z.string().nullable(),
});

const specimenMeasurementsFound = z.strictObject({
  dimension_id: z.string(),
  reason: z.string().nullable(),
  row_version: z.number(),
});

/** The readings of a specimen that count, and what of it cannot be measured. */
export async function specimenMeasurements(
  db: Database,
  studyId: string,
  specimenId: string,
): Promise<SpecimenMeasurements> {
  const [readings, unmeasured] = await Promise.all([
    query(
      db,
      specimenMeasurementsRow,
      `select reading_id, dimension_id, trial, value_mm, instrument_id, operator from readings
       where study_id = $1 and specimen_id = $2 and superseded_at is null order by ordinal`,
      [studyId, specimenId],
    ),
    query(
      db,
      specimenMeasurementsFound,
      'select dimension_id, reason, row_version from unmeasured where study_id = $1 and specimen_id = $2',
      [studyId, specimenId],
    ),
  ]);
  return { readings, unmeasured };
}

const codedSpecimensRow = z.strictObject({ specimen_id: z.string(), code: z.string() });

/** Every specimen of a study that has a sticker, with its code. */
export const codedSpecimens = (
  db: Database,
  studyId: string,
): Promise<{ specimen_id: string; code: string }[]> =>
  query(
    db,
    codedSpecimensRow,
    'select specimen_id, code from specimens where study_id = $1 and code is not null order by ordinal',
    [studyId],
  );

/** A specimen whose place on its plate is known, from the plate's middle. */
const placedSpecimenRow = z.strictObject({
  specimen_id: z.string(),
  code: z.string().nullable(),
  plate_x_mm: z.number(),
  plate_y_mm: z.number(),
});
export type PlacedSpecimen = z.infer<typeof placedSpecimenRow>;

/** The specimens of an artefact whose places on their plates are known. */
export const placedSpecimens = (
  db: Database,
  studyId: string,
  artefactId: string,
): Promise<PlacedSpecimen[]> =>
  query(
    db,
    placedSpecimenRow,
    `select s.specimen_id, s.code, s.plate_x_mm, s.plate_y_mm
     from specimens s join prints p on p.study_id = s.study_id and p.print_id = s.print_id
     where s.study_id = $1 and p.artefact_id = $2
       and s.plate_x_mm is not null and s.plate_y_mm is not null`,
    [studyId, artefactId],
  );

const specimenOfCodeRow = z.strictObject({ specimen_id: z.string() });

/** The id of the specimen that carries a code, or has it as its id; case does not matter. */
export async function specimenOfCode(
  db: Database,
  studyId: string,
  code: string,
): Promise<string | null> {
  const [found] = await query(
    db,
    specimenOfCodeRow,
    `select specimen_id from specimens
     where study_id = $1 and (lower(code) = lower($2) or lower(specimen_id) = lower($2))
     order by ordinal limit 1`,
    [studyId, code],
  );
  return found?.specimen_id ?? null;
}

import * as z from 'zod';
import { MOST_TRIALS, TABLES } from '../../core/model/study';
import {
  brokenReading,
  findRow,
  findStudy,
  insertReadings,
  listSpecimenFacts,
  listReadings,
  specimenMeasurements,
  supersedeReading,
  writeStudy,
  type SpecimenFacts,
  type SpecimenMeasurements,
  type StoredReading,
} from '../../data';
import { checkOwn } from '../access/own';
import type { App } from '../app';
import { RequestError } from '../http/problem';

/** A reading as a client sends it, with the id that it gives it. */
export const readingSchema = TABLES.readings.row
  .omit({ superseded_at: true })
  .extend({ reading_id: z.uuid() })
  .strict();

export type SentReading = z.infer<typeof readingSchema>;

/** The readings of a study that count. @throws NotFoundError */
export async function readingsOf(app: App, studyId: string): Promise<StoredReading[]> {
  await findStudy(app.db, studyId);
  return listReadings(app.db, studyId);
}

/** What a column of a reading names. */
const NAMED = {
  specimen_id: 'specimens',
  dimension_id: 'dimensions of this part',
  instrument_id: 'instruments',
} as const;

/** Keeps readings, all of them or none; sent again with the same ids they are kept once. */
export const addReadings = (
  app: App,
  studyId: string,
  readings: readonly SentReading[],
  who: string | null,
): Promise<StoredReading[]> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const sent = readings.map((reading) => ({ ...reading, superseded_at: null }));
    const broken = await brokenReading(write, sent);
    if (broken) {
      const { column, value } = broken;
      throw new RequestError(422, `${column} ${value} is not among the ${NAMED[column]}.`);
    }
    const kept = await insertReadings(write, sent);
    if (kept.some(({ trial }) => trial > MOST_TRIALS)) {
      throw new RequestError(422, `trial must be at most ${MOST_TRIALS}.`);
    }
    return kept;
  });

/** Withdraws a reading: it stays stored and no longer counts. */
export const takeBackReading = (
  app: App,
  studyId: string,
  readingId: string,
  at: string,
  who: string | null,
): Promise<StoredReading> =>
  writeStudy(app.db, studyId, who, async (write) => {
    await checkOwn(write, 'readings', { reading_id: readingId });
    return supersedeReading(write, readingId, at);
  });

/** The specimens of a study, each with how many of its dimensions are measured. @throws NotFoundError */
export async function specimensOf(app: App, studyId: string): Promise<SpecimenFacts[]> {
  const { db } = app;
  await findStudy(db, studyId);
  return listSpecimenFacts(db, studyId);
}

/** The readings of a specimen that count, and what of it cannot be measured. @throws NotFoundError */
export async function measurementsOf(
  app: App,
  studyId: string,
  specimenId: string,
): Promise<SpecimenMeasurements> {
  const { db } = app;
  await findStudy(db, studyId);
  await findRow(db, studyId, 'specimens', { specimen_id: specimenId });
  return specimenMeasurements(db, studyId, specimenId);
}

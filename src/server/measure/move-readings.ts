import { v5 as nameBased } from 'uuid';
import * as z from 'zod';
import { id, time } from '../../core/model/study';
import {
  findReadings,
  findRow,
  insertReadings,
  supersedeReading,
  writeStudy,
  type StoredReading,
  type Write,
} from '../../data';
import { checkOwn } from '../access/own';
import type { App } from '../app';
import { RequestError } from '../http/problem';

/** Readings that were taken from another specimen than the one they stand under. */
export const moveSchema = z.strictObject({
  reading_ids: z.array(z.uuid()).min(1).max(3000),
  to: id(),
  at: time(),
});

/** Names of ids that follow from a reading and where it moves, so that a move that is sent again counts once. */
const NAMES = 'b3d1a1a8-5c0e-4f6e-8f0e-6f6a0c8e3b52';

/**
 * Moves readings to the specimen that was really measured. The old readings stay, marked as superseded; the new ones
 * have ids that follow from them.
 *
 * @returns the readings as they stand at the other specimen
 * @throws RequestError where the specimens are of different parts, or a reading does not count any more
 */
export const moveReadings = (
  app: App,
  studyId: string,
  { reading_ids, to, at }: z.infer<typeof moveSchema>,
  who: string | null,
): Promise<{ readings: StoredReading[] }> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const readings = await findReadings(write, reading_ids);
    if (readings.length !== new Set(reading_ids).size) {
      throw new RequestError(404, 'One of these readings is not in this study.');
    }
    const part = await artefactOf(write, to);
    for (const specimen of new Set(readings.map((row) => row.specimen_id))) {
      if (specimen === to)
        throw new RequestError(422, `to ${to} is the specimen they are stored under.`);
      if ((await artefactOf(write, specimen)) === part) continue;
      throw new RequestError(422, `to ${to} is another part than ${specimen}: measure it again.`);
    }
    const moved = readings.map((row) => ({
      ...row,
      reading_id: nameBased(`${row.reading_id} ${to}`, NAMES),
      specimen_id: to,
      superseded_at: null,
    }));
    const known = new Set(
      (
        await findReadings(
          write,
          moved.map((row) => row.reading_id),
        )
      ).map((row) => row.reading_id),
    );
    for (const [index, row] of readings.entries()) {
      if (known.has(moved[index]?.reading_id ?? '')) continue;
      if (row.superseded_at !== null) {
        throw new RequestError(409, 'One of these readings was taken back or moved already.');
      }
      await checkOwn(write, 'readings', { reading_id: row.reading_id });
      await supersedeReading(write, row.reading_id, at);
    }
    return { readings: await insertReadings(write, moved) };
  });

async function artefactOf({ db, studyId }: Write, specimen_id: string): Promise<string> {
  const { print_id } = await findRow(db, studyId, 'specimens', { specimen_id });
  return (await findRow(db, studyId, 'prints', { print_id })).artefact_id;
}

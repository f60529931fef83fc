import type { Row } from '../../core/model/study';
import { insertRow, machineOfContender, rowOrNull, type Write } from '../../data';

/**
 * A level that was typed with a print is a level of its machine while it prints: it stands in noise, unless one of
 * that distance is there already.
 */
export async function noteLevel(
  write: Write,
  print: Pick<Row<'prints'>, 'contender_id' | 'noise_db' | 'noise_distance_m'>,
): Promise<void> {
  const { noise_db: db_a, noise_distance_m: distance_m, contender_id } = print;
  if (db_a === null || distance_m === null) return;
  const { db, studyId } = write;
  const machine_id = await machineOfContender(db, studyId, contender_id);
  if (machine_id === null) return;
  const key = { machine_id, state: 'printing' as const, distance_m };
  if (await rowOrNull(db, studyId, 'noise', key)) return;
  await insertRow(write, 'noise', { ...key, db_a });
}

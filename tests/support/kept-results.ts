import { expect } from 'vitest';
import { needsOf, sectionOfPart, type PartName } from '../../src/core/answers/results';
import { findStudy, type Database } from '../../src/data';

/**
 * Waits until parts of a study's results are kept as the study stands: a result is answered first,
 * and kept then.
 */
export async function resultsAreKept(
  db: Database,
  study: string,
  parts: readonly PartName[],
): Promise<void> {
  const { touched } = await findStudy(db, study);
  const lacking = async () => {
    const [rows] = (await db.sequelize.query(
      'select section as part, max(revision)::int as revision from results where study_id = $1 group by section',
      { bind: [study] },
    )) as unknown as [{ part: string; revision: number }[]];
    const kept = new Map(rows.map((row) => [row.part, row.revision]));
    return parts.filter((part) => {
      const wanted = [...needsOf(sectionOfPart(part))].map((table) => touched[table] ?? 0);
      return (kept.get(part) ?? 0) < Math.max(1, ...wanted);
    });
  };
  await expect.poll(lacking, { timeout: 30_000 }).toEqual([]);
}

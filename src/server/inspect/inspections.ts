import * as z from 'zod';
import { TABLES, type Row, keysOf } from '../../core/model/study';
import {
  deleteRow,
  findRow,
  findStudy,
  insertRow,
  listRowsBy,
  listTables,
  rowOrNull,
  updateRow,
  writeStudy,
  type Stored,
  type Write,
} from '../../data';
import type { App } from '../app';
import { checkRow } from '../rows';

const findingSchema = TABLES.findings.row
  .omit({ specimen_id: true, zone_id: true, inspector: true })
  .strict();

/** What an inspector says of a zone of a specimen: all of it; no findings: the zone is clean. */
export const wordSchema = TABLES.inspections.row
  .extend({
    /** Null takes the inspector's word back: nobody has looked, as far as they are concerned. */
    findings: z.array(findingSchema).max(50).nullable(),
  })
  .strict()
  .refine(
    ({ findings }) =>
      findings === null || new Set(findings.map((one) => one.defect)).size === findings.length,
    { message: 'a defect is listed twice: give it one grade', path: ['findings'] },
  );

export type InspectorsWord = z.infer<typeof wordSchema>;
export type EnteredFinding = z.infer<typeof findingSchema>;

/**
 * Keeps what an inspector says of a zone, in place of what they said before; that stays in the
 * history. Sent again, it changes nothing.
 */
export const keepWord = (
  app: App,
  studyId: string,
  { findings, ...inspection }: InspectorsWord,
  who: string | null,
): Promise<void> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const key = {
      specimen_id: inspection.specimen_id,
      zone_id: inspection.zone_id,
      inspector: inspection.inspector,
    };
    await findRow(write.db, studyId, 'specimens', { specimen_id: inspection.specimen_id });
    const before = await rowOrNull(write.db, studyId, 'inspections', key);
    if (!before && findings !== null) {
      await checkRow(write, 'inspections', inspection);
      await insertRow(write, 'inspections', inspection);
    }
    await keepFindings(write, key, findings ?? []);
    if (before && findings === null) await deleteRow(write, 'inspections', key, before.row_version);
  });

type ZoneKey = Pick<Row<'inspections'>, 'specimen_id' | 'zone_id' | 'inspector'>;

async function keepFindings(
  write: Write,
  key: ZoneKey,
  wanted: readonly EnteredFinding[],
): Promise<void> {
  const { db, studyId } = write;
  const known = (await listRowsBy(db, studyId, 'findings', 'specimen_id', key.specimen_id)).filter(
    (row) => row.zone_id === key.zone_id && row.inspector === key.inspector,
  );
  for (const row of known) {
    if (wanted.some((one) => one.defect === row.defect)) continue;
    await deleteRow(write, 'findings', { ...key, defect: row.defect }, row.row_version);
  }
  for (const finding of wanted) {
    const before = known.find((row) => row.defect === finding.defect);
    const row = { ...key, ...finding };
    if (before) {
      const isSame = keysOf(finding).every((column) => before[column] === finding[column]);
      if (isSame) continue;
      await updateRow(write, 'findings', { ...key, defect: row.defect }, row, before.row_version);
    } else {
      await checkRow(write, 'findings', row);
      await insertRow(write, 'findings', row);
    }
  }
}

/** What one inspector has said so far; what others say is not shown to them. */
export async function wordsOf(
  app: App,
  studyId: string,
  inspector: string,
): Promise<{ inspections: Stored<'inspections'>[]; findings: Stored<'findings'>[] }> {
  const { db } = app;
  await findStudy(db, studyId);
  const tables = await listTables(db, studyId, ['inspections', 'findings']);
  return {
    inspections: tables.inspections.filter((row) => row.inspector === inspector),
    findings: tables.findings.filter((row) => row.inspector === inspector),
  };
}

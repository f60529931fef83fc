import * as z from 'zod';
import { addressesIn } from '../../core/answers/figure-address';
import { figureAt, type ReportedResults } from '../../core/answers/results';
import { isPlainText, TABLES, VERDICT_KINDS, type Row } from '../../core/model/study';
import {
  deleteRow,
  findStudy,
  insertRow,
  listRows,
  listRowsBy,
  metaOfRecord,
  rowOrNull,
  updateRow,
  updateStudy,
  writeStudy,
  type Stored,
  type Write,
} from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { checkRow } from '../rows/check';
import { reportContext } from './context';

const plain = (most: number) =>
  z.string().max(most, 'is too long').refine(isPlainText, 'holds a control character: take it out');

/** A sentence as a person sends it: written anew, or as they changed it. */
export const sentenceSchema = z.strictObject({
  verdict_id: TABLES.verdicts.row.shape.verdict_id,
  contender_id: z.string().max(64).nullable(),
  kind: z.enum(VERDICT_KINDS),
  text: plain(4000).refine((text) => text.trim() !== '', 'write the sentence'),
  /** Addresses of the figures that it rests on. */
  rests_on: z.array(plain(300).regex(/^\S+$/, 'is no address')).max(50),
  /** The version that it was changed from; null for a new one. */
  version: z.number().int().nullable(),
});

/** More sentences than this are no report. */
const MOST_SENTENCES = 500;

/**
 * Keeps a sentence with the figures that it rests on, as they stand now: when they move, it is marked.
 *
 * @throws ConflictError, RequestError
 */
export async function keepSentence(
  app: App,
  studyId: string,
  { rests_on, version, ...sent }: z.infer<typeof sentenceSchema>,
  who: string | null,
): Promise<Stored<'verdicts'>> {
  // Figures are found before the write: it does not wait for a computation.
  const { context } = await reportContext(app, studyId);
  return writeStudy(app.db, studyId, who, async (write) => {
    const { db } = write;
    const evidence = [...new Set(rests_on)].join(' ') || null;
    const key = { verdict_id: sent.verdict_id };
    const before = await rowOrNull(db, studyId, 'verdicts', key);
    if (before && version === null) {
      // The same sentence sent again.
      if (before.text === sent.text && before.evidence === evidence) return before;
      throw new RequestError(409, 'Another sentence has this id.');
    }
    const others = await listRows(db, studyId, 'verdicts');
    if (!before && others.length >= MOST_SENTENCES) {
      throw new RequestError(422, `A report has at most ${MOST_SENTENCES} sentences.`);
    }
    const ofKind = others.filter((row) => row.kind === sent.kind);
    const last = Math.max(0, ...ofKind.map((row) => row.order));
    const order = before?.kind === sent.kind ? before.order : last + 1;
    const row: Row<'verdicts'> = { ...sent, evidence, order };
    await checkRow(write, 'verdicts', row);
    const kept = before
      ? await updateRow(write, 'verdicts', key, row, version ?? 0)
      : await insertRow(write, 'verdicts', row);
    await stamp(write, sent.verdict_id, evidence, context.results);
    return kept;
  });
}

/** Keeps how the figures of a sentence stand now, in place of how they stood before. */
async function stamp(
  write: Write,
  verdict_id: string,
  evidence: string | null,
  results: ReportedResults,
): Promise<void> {
  await dropStamps(write, verdict_id);
  for (const address of new Set(addressesIn(evidence))) {
    const found = figureAt(results, address);
    if (found) await insertRow(write, 'verdict_figures', { verdict_id, address, ...found });
  }
}

async function dropStamps(write: Write, verdict_id: string): Promise<void> {
  const { db, studyId } = write;
  for (const row of await listRowsBy(db, studyId, 'verdict_figures', 'verdict_id', verdict_id)) {
    const key = { verdict_id, address: row.address };
    await deleteRow(write, 'verdict_figures', key, row.row_version);
  }
}

/** Takes a sentence out, with what it rested on. @throws NotFoundError, ConflictError */
export const dropSentence = (
  app: App,
  studyId: string,
  verdict_id: string,
  version: number,
  who: string | null,
): Promise<void> =>
  writeStudy(app.db, studyId, who, async (write) => {
    await dropStamps(write, verdict_id);
    await deleteRow(write, 'verdicts', { verdict_id }, version);
  });

export const orderSchema = z.strictObject({
  /** All sentences of a kind, in their order. */
  order: z.array(z.string().max(64)).min(1).max(MOST_SENTENCES),
});

/** Puts sentences of one kind into an order: one action, one write. */
export const orderSentences = (
  app: App,
  studyId: string,
  { order }: z.infer<typeof orderSchema>,
  who: string | null,
): Promise<void> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const rows = await listRows(write.db, studyId, 'verdicts');
    const [first] = order;
    const kind = rows.find((row) => row.verdict_id === first)?.kind;
    const own = rows.filter((row) => row.kind === kind).map((row) => row.verdict_id);
    if (own.length !== new Set(order).size || !order.every((id) => own.includes(id))) {
      throw new RequestError(
        409,
        'Someone else added or removed sentences. Nothing was moved: read the list and try again.',
      );
    }
    for (const [at, verdict_id] of order.entries()) {
      const row = rows.find((one) => one.verdict_id === verdict_id);
      if (!row || row.order === at + 1) continue;
      await updateRow(write, 'verdicts', { verdict_id }, { order: at + 1 }, row.row_version);
    }
  });

export const thrownSchema = z.strictObject({ key: plain(400).min(1) });

/** Throws a proposed sentence away: it is not proposed again. */
export const throwAway = (
  app: App,
  studyId: string,
  key: string,
  who: string | null,
): Promise<void> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const record = await findStudy(write.db, studyId);
    const report = metaOfRecord(record).report ?? {};
    const thrown = report.thrown_away ?? [];
    if (thrown.includes(key)) return;
    const kept = [...thrown, key].slice(-1000);
    await updateStudy(write, { report: { ...report, thrown_away: kept } }, record.version);
  });

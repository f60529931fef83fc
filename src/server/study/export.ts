import { Readable } from 'node:stream';
import { lackingIn, writePackage } from '../../core/model/package';
import { type Study, rowsAsColumns } from '../../core/model/study';
import { KINDS } from '../../core/answers/workshop';
import { keptIds, listFiles, listHistory, loadStudy, readFile, type Database } from '../../data';
import { isPackable, zipParts, type Part } from '../../files/zip-parts';
import type { App } from '../app';

export interface ExportedStudy {
  /** A name for the file, without its ending. */
  name: string;
  zip: Readable;
  /** Tables without which it cannot be imported again; none where the package is whole. */
  lacking: string[];
}

/**
 * Streams a study as a zip of its package: every table, every file that came with it, and its
 * history.
 */
export async function exportStudy(db: Database, studyId: string): Promise<ExportedStudy> {
  const { study, packageExtras } = await loadStudy(db, studyId);
  const history = await listHistory(db, studyId);
  await withLastingIds(db, studyId, study);
  const texts = writePackage(study, packageExtras, history);
  const files = await listFiles(db, studyId);
  const encoder = new TextEncoder();
  const parts = async function* (): AsyncGenerator<Part> {
    for (const [path, text] of texts) {
      yield { path, isPacked: true, content: Readable.from([encoder.encode(text)]) };
    }
    for (const file of files) {
      yield {
        path: file.path,
        isPacked: isPackable(file.path),
        content: readFile(db, file.sha256),
      };
    }
    await Promise.resolve();
  };
  return {
    name: study.meta.name.replace(/[^A-Za-z0-9._-]+/g, '-'),
    lacking: lackingIn(study),
    zip: zipParts(parts()),
  };
}

/** Rows of things that a person made or knows carry their lasting id. */
async function withLastingIds(db: Database, studyId: string, { tables }: Study): Promise<void> {
  const kept = await keptIds(db, studyId);
  for (const { table, id } of Object.values(KINDS)) {
    const rows = rowsAsColumns(tables[table]);
    for (const row of rows) row.uid ??= kept.get(`${table} ${row[id]}`) ?? null;
  }
}

/** The same of the application's own database. @throws NotFoundError */
export const openStudyZip = (app: App, studyId: string): Promise<ExportedStudy> =>
  exportStudy(app.db, studyId);

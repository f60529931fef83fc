import { Readable } from 'node:stream';
import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import { writePackage } from '../../core/package';
import { listFiles, listHistory, loadStudy, readFile, type Database } from '../../data';
import { app } from '../app';

export interface ExportedStudy {
  /** A name for the file, without its ending. */
  name: string;
  zip: Readable;
}

/**
 * Streams a study as a zip of its package: every table, every file that came with it, and its
 * history.
 */
export async function exportStudy(db: Database, studyId: string): Promise<ExportedStudy> {
  const { study, packageExtras } = await loadStudy(db, studyId);
  const history = await listHistory(db, studyId);
  const texts = writePackage(study, packageExtras, history);
  const files = await listFiles(db, studyId);
  const encoder = new TextEncoder();
  const parts = async function* (): AsyncGenerator<Part> {
    for (const [path, text] of texts) {
      yield { path, isPacked: true, content: Readable.from([encoder.encode(text)]) };
    }
    for (const file of files) {
      const isPacked = /\.(?:csv|json|gcode|gco|g|nc|stl|obj|txt|md|svg)$/i.test(file.path);
      yield { path: file.path, isPacked, content: readFile(db, file.sha256) };
    }
    await Promise.resolve();
  };
  return {
    name: study.meta.name.replace(/[^A-Za-z0-9._-]+/g, '-'),
    zip: Readable.from(zipParts(parts()), { objectMode: false }),
  };
}

interface Part {
  path: string;
  /** Whether packing makes it smaller. */
  isPacked: boolean;
  content: AsyncIterable<Uint8Array>;
}

/** Packs parts one after another; what is packed leaves before more is taken in. */
async function* zipParts(parts: AsyncIterable<Part>): AsyncGenerator<Uint8Array> {
  let ready: Uint8Array[] = [];
  let failure: Error | null = null;
  const zip = new Zip((error, data) => {
    if (error) failure = error;
    else ready.push(data);
  });
  const drain = (): Uint8Array[] => {
    if (failure) throw failure;
    const taken = ready;
    ready = [];
    return taken;
  };
  for await (const part of parts) {
    const entry = part.isPacked
      ? new ZipDeflate(part.path, { level: 6 })
      : new ZipPassThrough(part.path);
    zip.add(entry);
    for await (const chunk of part.content) {
      entry.push(new Uint8Array(chunk));
      yield* drain();
    }
    entry.push(new Uint8Array(0), true);
    yield* drain();
  }
  zip.end();
  yield* drain();
}

/** The same of the application's own database. @throws NotFoundError */
export const openStudyZip = (studyId: string): Promise<ExportedStudy> =>
  exportStudy(app().db, studyId);

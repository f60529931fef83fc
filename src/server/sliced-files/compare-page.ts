import { differencesOf } from '../../core/toolpath';
import { rowOrNull, slicedFacts } from '../../data';
import type { App } from '../app';

const MOST_COMPARED = 8;

/** Sliced files side by side: those asked for, or those that some prints were made from. */
export async function comparedFiles(app: App, studyId: string, search: URLSearchParams) {
  const { db } = app;
  const prints = search.getAll('print');
  const ofPrint = await Promise.all(
    prints.slice(0, MOST_COMPARED).map(async (id) => {
      const print = await rowOrNull(db, studyId, 'prints', { print_id: id });
      return { id, path: print?.toolpath ?? null };
    }),
  );
  const asked = [...search.getAll('file'), ...ofPrint.flatMap(({ path }) => path ?? [])];
  const paths = [...new Set(asked)].slice(0, MOST_COMPARED);
  const found = await slicedFacts(db, studyId, paths);
  const files = paths.flatMap((path) => {
    const file = found.find((one) => one.path === path);
    return file?.facts ? [{ ...file, facts: file.facts }] : [];
  });
  return {
    files,
    differences: files.length < 2 ? [] : differencesOf(files.map((file) => file.facts)),
    /** Prints whose file is not known. */
    without: ofPrint.filter(({ path }) => path === null).map(({ id }) => id),
    /** Files that have not been read. */
    unread: paths.filter((path) => !files.some((file) => file.path === path)),
    /** Prints that were made from one and the same file. */
    isOneFile: prints.length > 1 && paths.length === 1,
  };
}

import type { Row } from '../../core/model/study';
import { endPrint, writeStudy, type Stored } from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { checkRow } from '../rows';
import { noteLevel } from '../rows/level';

/** A print that has ended, with the stickers of its parts. */
export type EndedPrint = Stored<'prints'> & {
  specimens: { specimen_id: string; code: string | null }[];
};

/**
 * Puts down how a print ended, with the parts that came off the plate, each with a sticker's code of its own; sent
 * again it counts once.
 */
export function endPrintOf(
  app: App,
  studyId: string,
  print: Row<'prints'>,
  specimens: readonly Row<'specimens'>[],
  who: string | null,
): Promise<EndedPrint> {
  if (specimens.some((specimen) => specimen.print_id !== print.print_id)) {
    throw new RequestError(422, 'A specimen names another print.');
  }
  return writeStudy(app.db, studyId, who, async (write) => {
    await checkRow(write, 'prints', print);
    const ended = await endPrint(write, print, specimens);
    await noteLevel(write, print);
    return {
      ...ended.print,
      specimens: ended.specimens.map(({ specimen_id, code }) => ({ specimen_id, code })),
    };
  });
}

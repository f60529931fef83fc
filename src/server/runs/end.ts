import type { Row } from '../../core/study';
import { endPrint, writeStudy, type Stored } from '../../data';
import { app } from '../app';
import { RequestError } from '../http/problem';
import { checkRow } from '../rows';

/** Puts down how a print ended, with the parts that came off the plate; sent again it counts once. */
export function endPrintOf(
  studyId: string,
  print: Row<'prints'>,
  specimens: readonly Row<'specimens'>[],
  who: string | null,
): Promise<Stored<'prints'>> {
  if (specimens.some((specimen) => specimen.print_id !== print.print_id)) {
    throw new RequestError(422, 'A specimen names another print.');
  }
  return writeStudy(app().db, studyId, who, async (write) => {
    await checkRow(write, 'prints', print);
    return endPrint(write, print, specimens);
  });
}

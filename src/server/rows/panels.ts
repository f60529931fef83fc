import { asColumns, type TableName } from '../../core/model/study';
import { findPanelRun, rowOrNull, type Write } from '../../data';
import { RequestError } from '../http/problem';

/** What only a panel's own page writes. */
const OF_ITS_PAGE: readonly TableName[] = ['panel_setups', 'panel_notes', 'ballot_times'];

/**
 * Refuses to change beside a panel's own page what that page keeps: how it was held always, what it asks and
 * its ballots where it is held here.
 *
 * @throws RequestError 409
 */
export async function checkPanelRow(write: Write, table: TableName, row: object): Promise<void> {
  if (OF_ITS_PAGE.includes(table)) {
    throw new RequestError(
      409,
      'How a panel was held can only be changed on its own page, or by an import.',
    );
  }
  if (table !== 'panels' && table !== 'ballots') return;
  const panel_id = String(asColumns(row).panel_id);
  if (!(await findPanelRun(write, panel_id))) return;
  const held = await rowOrNull(write.db, write.studyId, 'panel_setups', { panel_id });
  if (table === 'panels' || held?.revealed_at === null) {
    throw new RequestError(409, 'This panel is held here: its page opens, ends and reveals it.');
  }
}

import { breachesOf } from '../../core/model/package';
import { type Row, type TableName, asColumns } from '../../core/model/study';
import { brokenReferences, machineOfPrint, type Write } from '../../data';
import { RequestError } from '../http/problem';
import { benchIssues } from './bench-rules';

/** What is wrong with a row: the column and the reason. */
export interface RowIssue {
  path: string;
  message: string;
}

/**
 * Checks a row as it is to be written, within the write: rules between its cells, what it names, and
 * what cannot be at a bench.
 *
 * @throws RequestError with every issue
 */
export async function checkRow<Name extends TableName>(
  write: Write,
  table: Name,
  row: Row<Name>,
): Promise<void> {
  const { db, studyId } = write;
  const columns = asColumns(row);
  const issues: RowIssue[] = breachesOf(table, columns).map(({ column, message }) => ({
    path: column,
    message,
  }));
  for (const { column, message } of await brokenReferences(db, studyId, table, columns)) {
    issues.push({ path: column, message });
  }
  if (table === 'incidents') {
    const { print_id = null, machine_id } = columns;
    const machine =
      print_id === null ? machine_id : await machineOfPrint(db, studyId, String(print_id));
    if (machine === null) issues.push({ path: 'print_id', message: 'is not among the prints' });
    else if (machine !== machine_id) {
      issues.push({ path: 'machine_id', message: `is not the machine of this print (${machine})` });
    }
  }
  issues.push(...(await benchIssues(write, table, columns)));
  const [first] = issues;
  if (first) throw new RequestError(422, `${first.path} ${first.message}`, { issues });
}

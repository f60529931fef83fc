import { tableSpec, type Row } from '../../core/study';
import { deleteRepeatable, listTables, writeStudy } from '../../data';
import { app } from '../app';

/** What was said by hand of the machines of a study, and which machines there are. */
export async function remarksData(studyId: string): Promise<{
  remarks: Row<'marks'>[];
  machines: { id: string; name: string }[];
}> {
  const { marks, machines } = await listTables(app().db, studyId, ['marks', 'machines']);
  return {
    remarks: marks.map(({ row_version: _, ...row }) => row as Row<'marks'>),
    machines: machines.map(({ machine_id: id, name }) => ({ id, name })),
  };
}

/** A remark as it stands, to be taken back. */
export const remarkSchema = tableSpec('marks').row.strict();

/** Takes a remark back. @throws NotFoundError where there is no such remark */
export const takeRemarkBack = (
  studyId: string,
  remark: Row<'marks'>,
  who: string | null,
): Promise<void> =>
  writeStudy(app().db, studyId, who, (write) => deleteRepeatable(write, 'marks', remark));

import type { Row } from '../../core/model/study';
import { listTables } from '../../data';
import type { App } from '../app';

/** What was said by hand of the machines of a study, and which machines there are. */
export async function remarksData(
  app: App,
  studyId: string,
): Promise<{
  remarks: Row<'marks'>[];
  machines: { id: string; name: string }[];
}> {
  const { marks, machines } = await listTables(app.db, studyId, ['marks', 'machines']);
  return {
    remarks: marks.map(({ row_version: _, ...row }) => row),
    machines: machines.map(({ machine_id: id, name }) => ({ id, name })),
  };
}

import type { Row } from '../../core/model/study';
import { listRowsBy, machineOfContender, updateRow, type Write } from '../../data';

/**
 * A print that turns out to be another contender's takes its incidents along: they are booked on that contender's
 * machine.
 */
export async function moveIncidents(
  write: Write,
  before: Row<'prints'>,
  change: Partial<Row<'prints'>>,
): Promise<void> {
  const { contender_id } = change;
  if (contender_id === undefined || contender_id === before.contender_id) return;
  const { db, studyId } = write;
  const machine_id = await machineOfContender(db, studyId, contender_id);
  if (machine_id === null) return;
  const incidents = await listRowsBy(db, studyId, 'incidents', 'print_id', before.print_id);
  for (const { incident_id, row_version, machine_id: old } of incidents) {
    if (old === machine_id) continue;
    await updateRow(write, 'incidents', { incident_id }, { machine_id }, row_version);
  }
}

import { firmwareIn } from '../../core/model/ledger';
import { instant, type Row } from '../../core/model/study';
import { findRow, listRowsBy, setFirmwareBefore, updateRow, type Write } from '../../data';

/**
 * A change of firmware takes effect at its time: prints from before it that name no firmware keep the one that the
 * machine had; from then on it is the machine's, unless a later change is known.
 */
export async function followFirmware(write: Write, change: Row<'machine_changes'>): Promise<void> {
  const version = change.kind === 'firmware' ? firmwareIn(change.what) : null;
  if (version === null) return;
  const { db, studyId } = write;
  const { machine_id, at } = change;
  const changes = await listRowsBy(db, studyId, 'machine_changes', 'machine_id', machine_id);
  const isLast = changes.every(
    (row) =>
      row.kind !== 'firmware' ||
      row.change_id === change.change_id ||
      instant(row.at) <= instant(at),
  );
  const machine = await findRow(db, studyId, 'machines', { machine_id });
  if (!isLast || machine.firmware === version) return;
  if (machine.firmware !== null) await setFirmwareBefore(write, machine_id, at, machine.firmware);
  await updateRow(write, 'machines', { machine_id }, { firmware: version }, machine.row_version);
}

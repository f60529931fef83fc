import * as z from 'zod';
import { freeLetter, lettersOf } from '../../core/model/study';
import { execute, query, type Database } from '../database';
import type { Write } from '../write';
import { logChange } from './changes';
import { listRows } from './rows';

const machineOfContenderRow = z.strictObject({ machine_id: z.string() });

/** The machine of a contender; null where there is no such contender. */
export async function machineOfContender(
  db: Database,
  studyId: string,
  contenderId: string,
): Promise<string | null> {
  const [found] = await query(
    db,
    machineOfContenderRow,
    'select machine_id from contenders where study_id = $1 and contender_id = $2',
    [studyId, contenderId],
  );
  return found?.machine_id ?? null;
}

/**
 * Gives every machine of the line-up that has none the letter of its badge: those that are there keep the one that
 * they are shown with, a new one gets the next that is free. From then on no other machine changes it.
 */
export async function giveLetters(write: Write): Promise<void> {
  const { db, studyId } = write;
  const [machines, contenders] = await Promise.all([
    listRows(db, studyId, 'machines'),
    listRows(db, studyId, 'contenders'),
  ]);
  // The one that was added last is not among those that were shown so far.
  const shown = lettersOf(contenders.slice(0, -1), machines);
  const letters = new Map(shown);
  for (const { machine_id } of contenders) {
    if (!letters.has(machine_id)) letters.set(machine_id, freeLetter(letters.values()));
  }
  const missing = machines.filter((row) => row.letter === null && letters.has(row.machine_id));
  if (missing.length === 0) return;
  await execute(
    db,
    `update machines m set letter = g.letter
     from jsonb_to_recordset($2::jsonb) as g(machine_id text, letter text)
     where m.study_id = $1 and m.machine_id = g.machine_id`,
    [
      studyId,
      JSON.stringify(
        missing.map(({ machine_id }) => ({ machine_id, letter: letters.get(machine_id) })),
      ),
    ],
  );
  write.touch('machines');
}

const setFirmwareBeforeRow = z.strictObject({ print_id: z.string() });

/** Prints of a machine from before a time that name no firmware: they were made with this one. */
export async function setFirmwareBefore(
  write: Write,
  machineId: string,
  at: string,
  firmware: string,
): Promise<void> {
  const { db, studyId } = write;
  const prints = await query(
    db,
    setFirmwareBeforeRow,
    `update prints p set firmware = $4, row_version = p.row_version + 1
     from contenders c
     where p.study_id = $1 and c.study_id = $1 and c.contender_id = p.contender_id
       and c.machine_id = $2 and p.firmware is null and p.started_at is not null
       and replace(p.started_at, ',', '.')::timestamptz < replace($3, ',', '.')::timestamptz
     returning p.print_id`,
    [studyId, machineId, at, firmware],
  );
  if (prints.length === 0) return;
  write.touch('prints');
  for (const { print_id } of prints) {
    const change = { before: { firmware: null }, after: { firmware } };
    await logChange(write, { table: 'prints', key: { print_id }, ...change });
  }
}

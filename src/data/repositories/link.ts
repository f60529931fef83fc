import * as z from 'zod';
import { execute, moments, query, type Database } from '../database';
import type { Write } from '../write';

/** What the bench link knows of a machine: the last that it has heard. */
const linkMachineRow = z.strictObject({
  machine_id: z.string(),
  /** The sender's run: a new one begins its counting anew. */
  session: z.string(),
  sequence: z.number(),
  at: z.string(),
  state: z.string(),
  progress: z.number().nullable(),
  /** When the progress last moved. */
  progress_at: z.string().nullable(),
  /** The job that a print was opened for, as long as the machine is at it. */
  printed_job: z.string().nullable(),
  print_id: z.string().nullable(),
  energy_start_wh: z.number().nullable(),
  energy_wh: z.number().nullable(),
  is_up: z.boolean(),
});
export type LinkMachine = z.infer<typeof linkMachineRow>;

/** Whether a study is on the link, what was heard, and what was dropped. */
export interface LinkState {
  isLinked: boolean;
  /** The study's revision: another one means that more than the link has changed. */
  revision: string;
  machines: LinkMachine[];
  dropped: DroppedMessages[];
  /** Machines that were heard and that no study on the link knows, the latest first. */
  strangers: { machine_id: string; count: number; last_at: string }[];
}

/** Messages that were not followed, and when and of whom the last one came. */
const droppedMessagesRow = z.strictObject({
  reason: z.string(),
  count: z.number(),
  last_at: z.string(),
  last_machine: z.string().nullable(),
});
export type DroppedMessages = z.infer<typeof droppedMessagesRow>;

const COLUMNS = `machine_id, session, sequence::float8 as sequence, at, state, progress, progress_at,
  printed_job, print_id, energy_start_wh, energy_wh, is_up`;

const linkStateRow = z.strictObject({ is_linked: z.boolean(), revision: z.string() });

const linkStateFound = z.strictObject({
  machine_id: z.string(),
  count: z.number(),
  last_at: z.string(),
});

/** What the link knows in a study. */
export async function linkState(db: Database, studyId: string): Promise<LinkState> {
  const [linked, machines, dropped, strangers] = await Promise.all([
    query(db, linkStateRow, 'select is_linked, revision from studies where study_id = $1', [
      studyId,
    ]),
    query(
      db,
      linkMachineRow,
      `select ${COLUMNS} from link_machines where study_id = $1 order by machine_id`,
      [studyId],
    ),
    query(
      db,
      droppedMessagesRow,
      `select reason, count::float8 as count, ${moments('last_at')}, last_machine
       from link_dropped where study_id = $1 order by reason`,
      [studyId],
    ),
    query(
      db,
      linkStateFound,
      `select machine_id, count::float8 as count, ${moments('last_at')} from link_strangers
       where last_at > now() - interval '7 days' order by last_at desc limit 20`,
    ),
  ]);
  const [study] = linked;
  return {
    isLinked: study?.is_linked === true,
    revision: study?.revision ?? '',
    machines,
    dropped,
    strangers,
  };
}

/** Puts a study on the link, or takes it off. A machine is on the link of one study at a time. */
export const setLinked = (db: Database, studyId: string, isLinked: boolean): Promise<void> =>
  execute(db, 'update studies set is_linked = $2 where study_id = $1', [studyId, isLinked]);

const studyOfMachineRow = z.strictObject({ study_id: z.string() });

/** The linked study of a machine of this id; of several, the one that was changed last. */
export async function studyOfMachine(db: Database, machineId: string): Promise<string | null> {
  const rows = await query(
    db,
    studyOfMachineRow,
    `select s.study_id from studies s join machines m using (study_id)
     where s.is_linked and s.deleted_at is null and m.machine_id = $1
     order by s.updated_at desc limit 1`,
    [machineId],
  );
  return rows[0]?.study_id ?? null;
}

/** The last that was heard of a machine, locked until the transaction ends. */
export async function lockLinkMachine(
  { db, studyId }: Write,
  machineId: string,
): Promise<LinkMachine | null> {
  const [row] = await query(
    db,
    linkMachineRow,
    `select ${COLUMNS} from link_machines where study_id = $1 and machine_id = $2 for update`,
    [studyId, machineId],
  );
  return row ?? null;
}

/** Sets what was heard of a machine. */
export const setLinkMachine = ({ db, studyId }: Write, heard: LinkMachine): Promise<void> =>
  execute(
    db,
    `insert into link_machines (study_id, machine_id, session, sequence, at, state, progress,
       progress_at, printed_job, print_id, energy_start_wh, energy_wh, is_up)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)
     on conflict (study_id, machine_id) do update set session = excluded.session,
       sequence = excluded.sequence, at = excluded.at, state = excluded.state,
       progress = excluded.progress, progress_at = excluded.progress_at,
       printed_job = excluded.printed_job, print_id = excluded.print_id, energy_start_wh = excluded.energy_start_wh,
       energy_wh = excluded.energy_wh, is_up = excluded.is_up`,
    [
      studyId,
      heard.machine_id,
      heard.session,
      heard.sequence,
      heard.at,
      heard.state,
      heard.progress,
      heard.progress_at,
      heard.printed_job,
      heard.print_id,
      heard.energy_start_wh,
      heard.energy_wh,
      heard.is_up,
    ],
  );

/** Whether a machine's sender is there, as the broker says. */
export const setLinkUp = (
  db: Database,
  studyId: string,
  machineId: string,
  isUp: boolean,
): Promise<void> =>
  execute(db, 'update link_machines set is_up = $3 where study_id = $1 and machine_id = $2', [
    studyId,
    machineId,
    isUp,
  ]);

/** Counts a message that was dropped, with the reason and whose it was. */
export const countDropped = (
  db: Database,
  studyId: string,
  reason: string,
  machineId: string,
): Promise<void> =>
  execute(
    db,
    `insert into link_dropped (study_id, reason, count, last_machine) values ($1, $2, 1, $3)
     on conflict (study_id, reason) do update set count = link_dropped.count + 1,
       last_at = now(), last_machine = excluded.last_machine`,
    [studyId, reason, machineId],
  );

/** So many machines that nobody knows are remembered. */
const MOST_STRANGERS = 200;

/** Notes that a machine was heard that no study on the link knows. */
export const countStranger = (db: Database, machineId: string): Promise<void> =>
  execute(
    db,
    `insert into link_strangers (machine_id)
     select $1 where (select count(*) from link_strangers) < $2
       or exists (select 1 from link_strangers where machine_id = $1)
     on conflict (machine_id) do update set count = link_strangers.count + 1, last_at = now()`,
    [machineId, MOST_STRANGERS],
  );

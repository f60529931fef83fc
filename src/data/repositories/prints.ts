import * as z from 'zod';
import type { LedgerEvent } from '../../core/model/ledger';
import { PRINT_EVENTS, type Row } from '../../core/model/study';
import { query, someRow, type Database } from '../database';
import type { Write } from '../write';
import { deleteRow, insertRow, rowOrNull, selectRows, type Stored } from './rows';
import { withStickers } from './stickers';

/**
 * Puts down how a print ended, with the parts that came off the plate. Where the print was open, it
 * is no longer. A part that names no sticker gets the next one that is free. Sent again, it counts once.
 */
export async function endPrint(
  write: Write,
  print: Row<'prints'>,
  specimens: readonly Row<'specimens'>[],
): Promise<{ print: Stored<'prints'>; specimens: Stored<'specimens'>[] }> {
  const key = { print_id: print.print_id };
  const kept = await insertRow(write, 'prints', print);
  // Only then: what is noted of the print names it at every moment.
  const open = await rowOrNull(write.db, write.studyId, 'open_prints', key);
  if (open) await deleteRow(write, 'open_prints', key, open.row_version);
  const parts: Stored<'specimens'>[] = [];
  for (const specimen of await withStickers(write, specimens)) {
    parts.push(await insertRow(write, 'specimens', specimen));
  }
  return { print: kept, specimens: parts };
}

/** How the prints of a contender's artefact ended. */
const cellTallyRow = z.strictObject({
  contender_id: z.string(),
  artefact_id: z.string(),
  success: z.number(),
  rescued: z.number(),
  failed: z.number(),
  aborted: z.number(),
});
export type CellTally = z.infer<typeof cellTallyRow>;

/** The prints that were put down last, so many of each contender and artefact. */
export const latestPrints = (
  db: Database,
  studyId: string,
  perCell: number,
): Promise<Stored<'prints'>[]> =>
  selectRows(
    db,
    'prints',
    `from contenders c
     join artefacts a on a.study_id = c.study_id
     cross join lateral (
       select * from prints p
       where p.study_id = c.study_id and p.contender_id = c.contender_id
         and p.artefact_id = a.artefact_id
       order by p.ordinal desc limit $2
     ) t
     where c.study_id = $1 order by t.ordinal`,
    [studyId, perCell],
  );

/** A print that came to its end, and what of it nobody has said yet. */
const incompletePrintRow = z.strictObject({
  print_id: z.string(),
  /** Whether the bench link ended it. */
  by_link: z.boolean(),
  no_mass: z.boolean(),
  no_time: z.boolean(),
  no_parts: z.boolean(),
});
export type IncompletePrint = z.infer<typeof incompletePrintRow>;

/** Finished prints of which the mass, the time or the parts are missing, the latest first, 200 at most. */
export const incompletePrints = (db: Database, studyId: string): Promise<IncompletePrint[]> =>
  query(
    db,
    incompletePrintRow,
    `select print_id, by_link, no_mass, no_time, no_parts from (
       select p.print_id, p.ordinal,
         exists (select 1 from print_events e where e.study_id = p.study_id
           and e.print_id = p.print_id and e.source = 'link') as by_link,
         p.filament_g is null as no_mass, p.print_s is null as no_time,
         p.outcome in ('success', 'rescued') and not exists (
           select 1 from specimens s where s.study_id = p.study_id and s.print_id = p.print_id
         ) as no_parts
       from prints p where p.study_id = $1 and p.outcome in ('success', 'rescued')
     ) t where no_mass or no_time or no_parts order by ordinal desc limit 200`,
    [studyId],
  );

/** How all prints of a study ended, by contender and artefact. */
export const tallyPrints = (db: Database, studyId: string): Promise<CellTally[]> =>
  query(
    db,
    cellTallyRow,
    `select contender_id, artefact_id,
       count(*) filter (where outcome = 'success')::int as success,
       count(*) filter (where outcome = 'rescued')::int as rescued,
       count(*) filter (where outcome = 'failed')::int as failed,
       count(*) filter (where outcome = 'aborted')::int as aborted
     from prints where study_id = $1 group by contender_id, artefact_id`,
    [studyId],
  );

/** Whether an artefact was ever printed, or is being printed. */
export async function isPrinted(
  db: Database,
  studyId: string,
  artefactId: string,
): Promise<boolean> {
  const found = await query(
    db,
    someRow,
    `select 1 from prints where study_id = $1 and artefact_id = $2
     union all select 1 from open_prints where study_id = $1 and artefact_id = $2 limit 1`,
    [studyId, artefactId],
  );
  return found.length > 0;
}

const printedPlacesRow = z.strictObject({
  contender_id: z.string(),
  artefact_id: z.string(),
  repeat: z.number(),
});

/** The places of the plan that are printed; of artefacts that are not planned none is asked for. */
export const printedPlaces = (
  db: Database,
  studyId: string,
): Promise<{ contender_id: string; artefact_id: string; repeat: number }[]> =>
  query(
    db,
    printedPlacesRow,
    `select contender_id, artefact_id, repeat from prints
     where study_id = $1
       and artefact_id in (select artefact_id from planned where study_id = $1)`,
    [studyId],
  );

/** The prints that a machine has made. */
export const printsOfMachine = (
  db: Database,
  studyId: string,
  machineId: string,
): Promise<Stored<'prints'>[]> =>
  selectRows(
    db,
    'prints',
    `from prints t
     join contenders c on c.study_id = t.study_id and c.contender_id = t.contender_id
     where t.study_id = $1 and c.machine_id = $2 order by t.ordinal`,
    [studyId, machineId],
  );

/** The incidents that were noted last. */
export const latestIncidents = (
  db: Database,
  studyId: string,
  limit: number,
): Promise<Stored<'incidents'>[]> =>
  selectRows(
    db,
    'incidents',
    `from (
       select * from incidents where study_id = $1 order by at desc nulls last limit $2
     ) t order by t.ordinal`,
    [studyId, limit],
  );

/** Mean seconds of a contender's finished prints of an artefact, by what they went into. */
const wallClockRow = z.strictObject({
  contender: z.string(),
  artefact: z.string(),
  prints: z.number(),
  heat_s: z.number(),
  print_s: z.number(),
  paused_s: z.number(),
});
export type WallClock = z.infer<typeof wallClockRow>;

/** Where the wall-clock time of finished prints went; what is not known counts as 0. */
export const wallClocks = (db: Database, studyId: string): Promise<WallClock[]> =>
  query(
    db,
    wallClockRow,
    `select contender_id as contender, artefact_id as artefact, count(*)::int as prints,
       avg(coalesce(heat_s, 0)) as heat_s, avg(print_s) as print_s,
       avg(coalesce(paused_s, 0)) as paused_s
     from prints
     where study_id = $1 and outcome in ('success', 'rescued') and print_s is not null
     group by contender_id, artefact_id`,
    [studyId],
  );

/** The print of some contenders that was begun last; null where none was. */
export async function lastPrintOf(
  db: Database,
  studyId: string,
  contenders: readonly string[],
): Promise<Stored<'prints'> | null> {
  const [row] = await selectRows(
    db,
    'prints',
    `from prints t where t.study_id = $1 and t.contender_id = any($2::text[])
     order by replace(t.started_at, ',', '.')::timestamptz desc nulls last, t.ordinal desc limit 1`,
    [studyId, contenders],
  );
  return row ?? null;
}

/** The print that runs on a machine, if one does. */
export async function openPrintOfMachine(
  db: Database,
  studyId: string,
  machineId: string,
): Promise<Stored<'open_prints'> | null> {
  const [row] = await selectRows(
    db,
    'open_prints',
    `from open_prints t
     join contenders c on c.study_id = t.study_id and c.contender_id = t.contender_id
     where t.study_id = $1 and c.machine_id = $2 order by t.ordinal limit 1`,
    [studyId, machineId],
  );
  return row ?? null;
}

const ledgerEventRow = z.strictObject({ at: z.string(), kind: z.enum(PRINT_EVENTS) });

/** What happened to a print while it ran, in the order of its times. */
export const eventsOfPrint = (
  db: Database,
  studyId: string,
  printId: string,
): Promise<LedgerEvent[]> =>
  query(
    db,
    ledgerEventRow,
    'select at, kind from print_events where study_id = $1 and print_id = $2 order by ordinal',
    [studyId, printId],
  );

const printOfIdRow = z.strictObject({ print_id: z.string() });

/** The print of an id, ended or running, as it is written; null where there is none. */
export async function printOfId(db: Database, studyId: string, id: string): Promise<string | null> {
  const [found] = await query(
    db,
    printOfIdRow,
    `select print_id from prints where study_id = $1 and lower(print_id) = lower($2)
     union all select print_id from open_prints where study_id = $1 and lower(print_id) = lower($2)
     limit 1`,
    [studyId, id],
  );
  return found?.print_id ?? null;
}

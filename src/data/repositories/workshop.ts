import * as z from 'zod';
import { TABLES, type Row } from '../../core/model/study';
import { query, type Database } from '../database';

/** An artefact of any study, with what its mesh is known by. */
const anyArtefactRow = z.strictObject({
  study_id: z.string(),
  /** The thing of the workshop that it is. */
  thing: z.string(),
  artefact: z.custom<Row<'artefacts'>>(),
  /** Hash and size of its mesh's file; null without one. */
  file: z.strictObject({ path: z.string(), sha256: z.string(), bytes: z.number() }).nullable(),
  /** Identity of its mesh as it was drawn; null where it was not. */
  identity: z.string().nullable(),
  prints: z.number(),
});
export type AnyArtefact = z.infer<typeof anyArtefactRow>;

/** The artefacts of all studies, those of the study begun first first. */
export const artefactsEverywhere = (db: Database, edition: string): Promise<AnyArtefact[]> =>
  query(
    db,
    anyArtefactRow,
    `select r.study_id, u.root as thing,
       to_jsonb(r) - 'study_id' - 'thing' - 'extras' - 'ordinal' - 'row_version' as artefact,
       case when f.path is null then null else
         json_build_object('path', f.path, 'sha256', f.sha256, 'bytes', sf.bytes) end as file,
       ms.content->'facts'->>'identity' as identity,
       (select count(*)::int from prints p
         where p.study_id = r.study_id and p.artefact_id = r.artefact_id) as prints
     from artefacts r
       join studies s on s.study_id = r.study_id and s.deleted_at is null
       join thing_roots u on u.uid = r.thing
       left join study_files f on f.study_id = r.study_id and f.path = r.mesh
       left join stored_files sf on sf.sha256 = f.sha256
       left join mesh_sheets ms on ms.sha256 = f.sha256 and ms.edition = $1
     order by s.created nulls last, r.study_id, r.ordinal`,
    [edition],
  );

/** A print of any study, as far as a machine's record of work needs it. */
const machinePrintRow = z.strictObject({
  thing: z.string(),
  print: TABLES.prints.row.pick({
    print_id: true,
    outcome: true,
    started_at: true,
    ended_at: true,
    heat_s: true,
    print_s: true,
    paused_s: true,
    filament_m: true,
    firmware: true,
  }),
});
export type MachinePrint = z.infer<typeof machinePrintRow>;

/** Every print of every machine. */
export const printsOfMachines = (db: Database): Promise<MachinePrint[]> =>
  query(
    db,
    machinePrintRow,
    `select u.root as thing, json_build_object('print_id', p.print_id, 'outcome', p.outcome,
         'started_at', p.started_at, 'ended_at', p.ended_at, 'heat_s', p.heat_s,
         'print_s', p.print_s, 'paused_s', p.paused_s, 'filament_m', p.filament_m,
         'firmware', p.firmware) as print
     from prints p join contenders c using (study_id, contender_id)
       join machines m using (study_id, machine_id)
       join studies s on s.study_id = p.study_id and s.deleted_at is null
       join thing_roots u on u.uid = m.thing`,
  );

const incidentsOfMachinesRow = z.strictObject({ thing: z.string(), incidents: z.number() });

/** How many incidents every machine had, over all studies. */
export const incidentsOfMachines = (
  db: Database,
): Promise<{ thing: string; incidents: number }[]> =>
  query(
    db,
    incidentsOfMachinesRow,
    `select u.root as thing, count(*)::int as incidents
     from incidents i join machines m using (study_id, machine_id)
       join studies s on s.study_id = i.study_id and s.deleted_at is null
       join thing_roots u on u.uid = m.thing
     group by u.root`,
  );

/** A feature of any machine, as its latest study has it. */
const machineFeatureRow = z.strictObject({
  uid: z.string(),
  name: z.string(),
  feature: z.string(),
  state: z.string(),
  price: z.number().nullable(),
});
export type MachineFeature = z.infer<typeof machineFeatureRow>;

/** What every machine has, lacks, or has at extra cost. */
export const featuresOfMachines = (db: Database): Promise<MachineFeature[]> =>
  query(
    db,
    machineFeatureRow,
    `select distinct on (lower(t.name), t.uid, f.feature)
       t.uid, t.name, f.feature, f.state, f.price
     from features f join machines m using (study_id, machine_id)
       join studies s on s.study_id = f.study_id and s.deleted_at is null
       join thing_roots u on u.uid = m.thing
       join things t on t.uid = u.root and t.deleted_at is null
     order by lower(t.name), t.uid, f.feature, s.created desc nulls last`,
  );

const materialsUsedRow = z.strictObject({
  thing: z.string(),
  prints: z.number(),
  used_g: z.number(),
  not_weighed_g: z.number(),
});

/** What was printed of every material, over all studies. */
export const materialsUsed = (
  db: Database,
): Promise<{ thing: string; prints: number; used_g: number; not_weighed_g: number }[]> =>
  query(
    db,
    materialsUsedRow,
    `select u.root as thing, count(*)::int as prints,
       coalesce(sum(p.filament_g), 0)::float8 as used_g,
       coalesce(sum(p.filament_g) filter (where p.filament_from is distinct from 'weighed'), 0)::float8
         as not_weighed_g
     from prints p join materials m using (study_id, material_id)
       join studies s on s.study_id = p.study_id and s.deleted_at is null
       join thing_roots u on u.uid = m.thing
     group by u.root`,
  );

import type { Row } from '../../core/model/study';
import { select, type Database } from '../database';

/** An artefact of any study, with what its mesh is known by. */
export interface AnyArtefact {
  study_id: string;
  /** The thing of the workshop that it is. */
  thing: string;
  artefact: Row<'artefacts'>;
  /** Hash and size of its mesh's file; null without one. */
  file: { path: string; sha256: string; bytes: number } | null;
  /** Identity of its mesh as it was drawn; null where it was not. */
  identity: string | null;
  prints: number;
}

/** The artefacts of all studies, those of the study begun first first. */
export const artefactsEverywhere = (db: Database, edition: string): Promise<AnyArtefact[]> =>
  select<AnyArtefact>(
    db,
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
export interface MachinePrint {
  thing: string;
  print: Pick<
    Row<'prints'>,
    | 'print_id'
    | 'outcome'
    | 'started_at'
    | 'ended_at'
    | 'heat_s'
    | 'print_s'
    | 'paused_s'
    | 'filament_m'
    | 'firmware'
  >;
}

/** Every print of every machine. */
export const printsOfMachines = (db: Database): Promise<MachinePrint[]> =>
  select<MachinePrint>(
    db,
    `select u.root as thing, json_build_object('print_id', p.print_id, 'outcome', p.outcome,
         'started_at', p.started_at, 'ended_at', p.ended_at, 'heat_s', p.heat_s,
         'print_s', p.print_s, 'paused_s', p.paused_s, 'filament_m', p.filament_m,
         'firmware', p.firmware) as print
     from prints p join contenders c using (study_id, contender_id)
       join machines m using (study_id, machine_id)
       join studies s on s.study_id = p.study_id and s.deleted_at is null
       join thing_roots u on u.uid = m.thing`,
  );

/** How many incidents every machine had, over all studies. */
export const incidentsOfMachines = (
  db: Database,
): Promise<{ thing: string; incidents: number }[]> =>
  select(
    db,
    `select u.root as thing, count(*)::int as incidents
     from incidents i join machines m using (study_id, machine_id)
       join studies s on s.study_id = i.study_id and s.deleted_at is null
       join thing_roots u on u.uid = m.thing
     group by u.root`,
  );

/** A feature of any machine, as its latest study has it. */
export interface MachineFeature {
  uid: string;
  name: string;
  feature: string;
  state: string;
  price: number | null;
}

/** What every machine has, lacks, or has at extra cost. */
export const featuresOfMachines = (db: Database): Promise<MachineFeature[]> =>
  select<MachineFeature>(
    db,
    `select distinct on (lower(t.name), t.uid, f.feature)
       t.uid, t.name, f.feature, f.state, f.price
     from features f join machines m using (study_id, machine_id)
       join studies s on s.study_id = f.study_id and s.deleted_at is null
       join thing_roots u on u.uid = m.thing
       join things t on t.uid = u.root and t.deleted_at is null
     order by lower(t.name), t.uid, f.feature, s.created desc nulls last`,
  );

/** What was printed of every material, over all studies. */
export const materialsUsed = (
  db: Database,
): Promise<{ thing: string; prints: number; used_g: number; not_weighed_g: number }[]> =>
  select(
    db,
    `select u.root as thing, count(*)::int as prints,
       coalesce(sum(p.filament_g), 0)::float8 as used_g,
       coalesce(sum(p.filament_g) filter (where p.filament_from is distinct from 'weighed'), 0)::float8
         as not_weighed_g
     from prints p join materials m using (study_id, material_id)
       join studies s on s.study_id = p.study_id and s.deleted_at is null
       join thing_roots u on u.uid = m.thing
     group by u.root`,
  );

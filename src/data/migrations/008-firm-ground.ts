/**
 * What of a study was changed when, content that nothing names, imports that are sent again, references
 * that were not held, and JSON that can always be read.
 */
export const up = String.raw`
alter table studies add column touched jsonb not null default '{}';
alter table stored_files add column stored_at timestamptz not null default now();
create table imports (
  import_key text primary key,
  study_id uuid not null references studies on delete cascade,
  at timestamptz not null default now()
);
delete from results;

create function pg_temp.readable(content json) returns boolean language plpgsql as $$
begin
  return content::jsonb is not null;
exception when others then
  return false;
end $$;
update sliced_files set facts = null, settings = null, state = 'waiting', read_share = 0
  where not pg_temp.readable(facts) or not pg_temp.readable(settings);
alter table sliced_files
  alter column facts type jsonb using facts::jsonb,
  alter column settings type jsonb using settings::jsonb;
update studies set package_extras = '{}' where not pg_temp.readable(package_extras);
update studies set plan = null where not pg_temp.readable(plan);
alter table studies
  add constraint json_is_readable check (
    package_extras::jsonb is not null and smallest_difference::jsonb is not null
    and (cost is null or cost::jsonb is not null)
    and (scorecard is null or scorecard::jsonb is not null)
    and (plan is null or plan::jsonb is not null)
  );

update incidents set mode = 'loose-strands' where mode = 'spaghetti';
update incidents set mode = 'storage-error' where mode = 'medium-error';
update profile_settings set "key" = 'speed_infill_mm_s' where "key" = 'speed_sparse_mm_s';

update studies s set reference = null where reference is not null and not exists
  (select 1 from contenders c where c.study_id = s.study_id and c.contender_id = s.reference);
alter table studies add constraint reference_is_contender
  foreign key (study_id, reference) references contenders (study_id, contender_id)
  deferrable initially deferred;

create function holds_print(study uuid, print text) returns boolean language sql stable as $$
  select exists (select 1 from prints where study_id = study and print_id = print)
    or exists (select 1 from open_prints where study_id = study and print_id = print)
$$;
create function check_print_named() returns trigger language plpgsql as $$
begin
  if new.print_id is not null and not holds_print(new.study_id, new.print_id) then
    raise exception 'print % is not there', new.print_id using errcode = 'foreign_key_violation';
  end if;
  return null;
end $$;
create function check_print_unnamed() returns trigger language plpgsql as $$
begin
  if exists (select 1 from studies where study_id = old.study_id)
    and not holds_print(old.study_id, old.print_id)
    and (exists (select 1 from incidents where study_id = old.study_id and print_id = old.print_id)
      or exists (select 1 from print_events where study_id = old.study_id and print_id = old.print_id))
  then
    raise exception 'print % is still named', old.print_id using errcode = 'foreign_key_violation';
  end if;
  return null;
end $$;
delete from print_events where not holds_print(study_id, print_id);
update incidents set print_id = null where print_id is not null and not holds_print(study_id, print_id);
create constraint trigger print_is_there after insert or update of print_id on incidents
  deferrable initially deferred for each row execute function check_print_named();
create constraint trigger print_is_there after insert or update of print_id on print_events
  deferrable initially deferred for each row execute function check_print_named();
create constraint trigger print_is_unnamed after delete on prints
  deferrable initially deferred for each row execute function check_print_unnamed();
create constraint trigger print_is_unnamed after delete on open_prints
  deferrable initially deferred for each row execute function check_print_unnamed();
`;

export const down = `
drop trigger print_is_unnamed on open_prints;
drop trigger print_is_unnamed on prints;
drop trigger print_is_there on print_events;
drop trigger print_is_there on incidents;
drop function check_print_unnamed, check_print_named, holds_print;
alter table studies drop constraint reference_is_contender, drop constraint json_is_readable;
alter table sliced_files alter column facts type json, alter column settings type json;
drop table imports;
alter table stored_files drop column stored_at;
alter table studies drop column touched;
`;

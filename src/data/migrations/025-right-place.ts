/**
 * A sticker is on one part only; what is deleted of a study can be restored for 30 days; prints say at which speed
 * mode they ran and where their mass comes from; machines keep the letter that they were given; the bench link says
 * when it dropped what, and whom it heard that no study knows.
 */

export const up = `
do $$
declare
  held record;
  fresh text;
  number integer;
begin
  for held in
    select study_id, specimen_id, code from (
      select *, row_number() over (partition by study_id, lower(code) order by ordinal) as place
      from specimens where code is not null
    ) s where place > 1 order by study_id, ordinal
  loop
    number := 2;
    loop
      fresh := held.code || '-' || number;
      exit when not exists (
        select 1 from specimens where study_id = held.study_id and lower(code) = lower(fresh)
      );
      number := number + 1;
    end loop;
    update specimens set code = fresh, row_version = row_version + 1
      where study_id = held.study_id and specimen_id = held.specimen_id;
    insert into changes (study_id, table_name, row_key, before, after, who) values (
      held.study_id, 'specimens', jsonb_build_object('specimen_id', held.specimen_id),
      jsonb_build_object('code', held.code), jsonb_build_object('code', fresh),
      'upgrade: this sticker was on two parts'
    );
    update studies set revision = revision + 1,
      touched = touched || jsonb_build_object('specimens', revision + 1)
      where study_id = held.study_id;
  end loop;
end $$;
create unique index specimens_code on specimens (study_id, lower(code)) where code is not null;

alter table prints add column speed_mode text, add column filament_from text;
alter table open_prints add column speed_mode text, add column filament_from text;
alter table machines add column letter text;
alter table link_dropped add column last_at timestamptz not null default now(), add column last_machine text;
create table link_strangers (
  machine_id text primary key,
  count bigint not null default 1,
  last_at timestamptz not null default now()
);

-- The page that changed each part last: it gets no news of its own change.
alter table studies add column touched_by jsonb not null default '{}';

-- A panel may be judged by cards, one link a judge; by the open link so many come in from one address.
alter table panel_runs add column is_open boolean not null default true,
  add column per_address integer not null default 3 check (per_address between 1 and 10000);
alter table panel_judges add column address text;
create table panel_cards (
  link text primary key check (length(link) = 43),
  study_id uuid not null,
  panel_id text not null,
  "number" integer not null check ("number" >= 1),
  judge_id uuid unique references panel_judges on delete set null,
  unique (study_id, panel_id, "number"),
  foreign key (study_id, panel_id) references panel_runs on delete cascade
);

create table backup_checks (
  check_id bigint generated always as identity primary key,
  at timestamptz not null default now(),
  file text not null,
  fault text
);

create table deletions (
  deletion_id uuid primary key,
  study_id uuid not null references studies on delete cascade,
  table_name text not null,
  row_key jsonb not null,
  title text not null,
  counts jsonb not null,
  held jsonb not null,
  who text,
  actor text default nullif(current_setting('vergleich.actor', true), ''),
  at timestamptz not null default now(),
  restored_at timestamptz
);
create index on deletions (study_id, at);
create table deleted_files (
  deletion_id uuid not null references deletions on delete cascade,
  "path" text not null,
  sha256 text not null references stored_files,
  primary key (deletion_id, "path")
);
create index on deleted_files (sha256);
`;

export const down = `
drop table backup_checks, deleted_files, deletions, link_strangers, panel_cards;
alter table panel_judges drop column address;
alter table panel_runs drop column is_open, drop column per_address;
alter table link_dropped drop column last_at, drop column last_machine;
alter table machines drop column letter;
alter table open_prints drop column speed_mode, drop column filament_from;
alter table prints drop column speed_mode, drop column filament_from;
drop index specimens_code;
alter table studies drop column touched_by;
`;

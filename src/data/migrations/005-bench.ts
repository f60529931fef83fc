/** The plan's order, spools, changes of machines, events of prints, and what the link has heard. */
export const up = `
alter table studies add column plan json;
alter table studies add column is_linked boolean not null default false;
create table spools (
  study_id uuid not null references studies on delete cascade,
  spool_id text not null,
  material_id text not null,
  mass_g double precision not null,
  opened_at text,
  dried_at text,
  dried_c double precision,
  dried_h double precision,
  notes text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, spool_id),
  foreign key (study_id, material_id) references materials deferrable initially deferred
);
create table machine_changes (
  study_id uuid not null references studies on delete cascade,
  change_id text not null,
  machine_id text not null,
  at text not null,
  kind text not null,
  what text not null,
  operator text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, change_id),
  foreign key (study_id, machine_id) references machines deferrable initially deferred
);
create table print_events (
  study_id uuid not null references studies on delete cascade,
  event_id text not null,
  print_id text not null,
  at text not null,
  kind text not null,
  source text not null,
  operator text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, event_id)
);
create index on print_events (study_id, print_id);
create table incident_photos (
  study_id uuid not null references studies on delete cascade,
  incident_id text not null,
  path text not null,
  taken_at text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, incident_id, path),
  foreign key (study_id, incident_id) references incidents deferrable initially deferred
);
create table link_machines (
  study_id uuid not null references studies on delete cascade,
  machine_id text not null,
  session text not null,
  sequence bigint not null,
  at text not null,
  state text not null,
  progress double precision,
  progress_at text,
  print_id text,
  energy_start_wh double precision,
  energy_wh double precision,
  is_up boolean not null default true,
  primary key (study_id, machine_id)
);
create table link_dropped (
  study_id uuid not null references studies on delete cascade,
  reason text not null,
  count bigint not null default 0,
  primary key (study_id, reason)
);
`;

export const down = `
drop table link_dropped, link_machines, incident_photos, print_events, machine_changes, spools;
alter table studies drop column is_linked;
alter table studies drop column plan;
`;

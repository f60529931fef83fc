/** What outlives a study: things with a lasting id, and what a machine has and its maker was asked. */
export const up = `
create table things (
  uid uuid primary key,
  kind text not null check (kind in ('machine', 'profile', 'material', 'artefact', 'instrument')),
  name text not null check (name <> ''),
  facts jsonb not null default '{}',
  known_at timestamptz not null,
  is_kept boolean not null default false,
  merged_into uuid references things,
  merged_at timestamptz,
  deleted_at timestamptz,
  created_at timestamptz not null default now(),
  row_version integer not null default 1,
  check (merged_into <> uid)
);
create index on things (kind, name);
create index on things (merged_into);
create view thing_roots as
  with recursive up (uid, root) as (
    select uid, uid from things where merged_into is null
    union all
    select t.uid, up.root from things t join up on t.merged_into = up.uid
  )
  select uid, root from up;
create table things_apart (
  one uuid not null references things,
  other uuid not null references things,
  primary key (one, other),
  check (one < other)
);
alter table machines add column serial text, add column uid text,
  add column thing uuid references things;
alter table profiles add column uid text, add column thing uuid references things;
alter table materials add column uid text, add column thing uuid references things;
alter table artefacts add column uid text, add column thing uuid references things;
alter table instruments add column serial text, add column certificate text, add column uid text,
  add column thing uuid references things;
create index on machines (thing);
create index on profiles (thing);
create index on materials (thing);
create index on artefacts (thing);
create index on instruments (thing);
create table features (
  study_id uuid not null references studies on delete cascade,
  machine_id text not null,
  feature text not null,
  state text not null,
  price double precision,
  note text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, machine_id, feature),
  foreign key (study_id, machine_id) references machines deferrable initially deferred
);
create table enquiries (
  study_id uuid not null references studies on delete cascade,
  enquiry_id text not null,
  machine_id text not null,
  "at" text not null,
  matter text not null,
  incident_id text,
  answered_at text,
  outcome text not null,
  firmware text,
  note text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, enquiry_id),
  foreign key (study_id, machine_id) references machines deferrable initially deferred,
  foreign key (study_id, incident_id) references incidents deferrable initially deferred
);
`;

export const down = `
drop table enquiries, features;
alter table machines drop column serial, drop column uid, drop column thing;
alter table profiles drop column uid, drop column thing;
alter table materials drop column uid, drop column thing;
alter table artefacts drop column uid, drop column thing;
alter table instruments drop column serial, drop column certificate, drop column uid, drop column thing;
drop view thing_roots;
drop table things_apart, things;
`;

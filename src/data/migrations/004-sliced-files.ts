/** What is planned, which differences are accepted, and what the sliced files say. */
export const up = `
create table planned (
  study_id uuid not null references studies on delete cascade,
  contender_id text not null,
  artefact_id text not null,
  material_id text not null,
  repeats integer not null,
  toolpath text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, contender_id, artefact_id, material_id),
  foreign key (study_id, contender_id) references contenders deferrable initially deferred,
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred,
  foreign key (study_id, material_id) references materials deferrable initially deferred
);
create table accepted_differences (
  study_id uuid not null references studies on delete cascade,
  contender_id text not null,
  reference_id text not null,
  artefact_id text not null,
  item text not null,
  reason text not null,
  operator text,
  at text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, contender_id, reference_id, artefact_id, item),
  foreign key (study_id, contender_id) references contenders deferrable initially deferred,
  foreign key (study_id, reference_id) references contenders deferrable initially deferred,
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred
);
create table sliced_files (
  study_id uuid not null,
  path text not null,
  sha256 text not null references stored_files,
  state text not null default 'waiting' check (state in ('waiting', 'reading', 'read', 'failed')),
  read_share double precision not null default 0,
  contender_id text,
  artefact_id text,
  is_confirmed boolean not null default false,
  message text,
  facts json,
  settings json,
  edition text,
  who text,
  uploaded_at timestamptz not null default now(),
  read_at timestamptz,
  primary key (study_id, path),
  foreign key (study_id, path) references study_files on delete cascade
);
create index on sliced_files (sha256);
create table uploads (
  study_id uuid not null references studies on delete cascade,
  sha256 text not null,
  bytes bigint not null,
  name text not null,
  draft text not null references stored_files,
  begun_at timestamptz not null default now(),
  primary key (study_id, sha256)
);
`;

export const down = `drop table uploads, sliced_files, accepted_differences, planned;`;

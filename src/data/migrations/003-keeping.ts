/** The history of changes, the kept results, and files by what they hold. */
export const up = `
create table changes (
  change_id bigint generated always as identity primary key,
  study_id uuid not null references studies on delete cascade,
  table_name text not null,
  row_key jsonb not null,
  before jsonb,
  after jsonb,
  who text,
  at timestamptz not null default now()
);
create index on changes (study_id, table_name, row_key);

create table results (
  study_id uuid not null references studies on delete cascade,
  section text not null,
  parameters text not null,
  revision bigint not null,
  value json not null,
  primary key (study_id, section, parameters)
);

create table stored_files (
  sha256 text primary key,
  bytes bigint not null
);
create table file_chunks (
  sha256 text not null references stored_files on delete cascade,
  sequence integer not null,
  data bytea not null,
  primary key (sha256, sequence)
);
create table study_files (
  study_id uuid not null references studies on delete cascade,
  path text not null,
  sha256 text not null references stored_files,
  primary key (study_id, path)
);
`;

export const down = `
drop table study_files, file_chunks, stored_files, results, changes;
`;

/** Reports: how they are made, what their sentences rest on, their addresses, revisions and files. */
export const up = `
alter table studies add column report json;
create table verdict_figures (
  study_id uuid not null references studies on delete cascade,
  verdict_id text not null,
  address text not null,
  value double precision,
  low double precision,
  high double precision,
  word text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, verdict_id, address),
  foreign key (study_id, verdict_id) references verdicts deferrable initially deferred
);
create table report_addresses (
  study_id uuid primary key references studies on delete cascade,
  secret text not null unique,
  name text unique,
  created_at timestamptz not null default now()
);
create table report_revisions (
  study_id uuid not null references studies on delete cascade,
  "number" integer not null check ("number" between 1 and 100000),
  state text not null default 'waiting' check (state in ('waiting', 'making', 'ready', 'failed')),
  step text,
  share double precision not null default 0 check (share between 0 and 1),
  message text,
  notes json not null default '[]',
  who text,
  asked_at timestamptz not null default date_trunc('milliseconds', now()),
  until text,
  frozen_at timestamptz,
  study_revision bigint,
  figures jsonb,
  model jsonb,
  published_at timestamptz,
  withdrawn_at timestamptz,
  withdrawn_because text,
  primary key (study_id, "number"),
  check (withdrawn_at is null or withdrawn_because is not null)
);
create table report_files (
  study_id uuid not null,
  "number" integer not null,
  "path" text not null,
  bytes bigint not null,
  sha256 text not null references stored_files,
  primary key (study_id, "number", "path"),
  foreign key (study_id, "number") references report_revisions on delete cascade
);
create index on report_files (sha256);
`;

export const down = `
drop table report_files, report_revisions, report_addresses, verdict_figures;
alter table studies drop column report;
`;

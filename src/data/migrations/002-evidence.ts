/** What was measured, inspected, judged and claimed. */
export const up = `
create table instruments (
  study_id uuid not null references studies on delete cascade,
  instrument_id text not null,
  name text not null,
  kind text,
  resolution_mm double precision,
  expanded_uncertainty_mm double precision,
  zero_mm double precision,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, instrument_id)
);
create table readings (
  study_id uuid not null references studies on delete cascade,
  reading_id uuid not null,
  specimen_id text not null,
  dimension_id text not null,
  trial integer not null,
  "value_mm" double precision not null,
  instrument_id text,
  operator text,
  at text,
  superseded_at text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  recorded_at timestamptz not null default now(),
  primary key (study_id, reading_id),
  foreign key (study_id, specimen_id) references specimens deferrable initially deferred,
  foreign key (study_id, instrument_id) references instruments deferrable initially deferred
);
create index on readings (study_id, instrument_id);
create table unmeasured (
  study_id uuid not null references studies on delete cascade,
  specimen_id text not null,
  dimension_id text not null,
  reason text,
  operator text,
  at text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, specimen_id, dimension_id),
  foreign key (study_id, specimen_id) references specimens deferrable initially deferred
);
create table ladder_results (
  study_id uuid not null references studies on delete cascade,
  specimen_id text not null,
  ladder_id text not null,
  step integer not null,
  result text not null,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, specimen_id, ladder_id, step),
  foreign key (study_id, specimen_id) references specimens deferrable initially deferred
);
create table function_results (
  study_id uuid not null references studies on delete cascade,
  specimen_id text not null,
  "check" text not null,
  result text not null,
  note text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, specimen_id, "check"),
  foreign key (study_id, specimen_id) references specimens deferrable initially deferred
);
create table inspections (
  study_id uuid not null references studies on delete cascade,
  specimen_id text not null,
  zone_id text not null,
  inspector text not null,
  at text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, specimen_id, zone_id, inspector),
  foreign key (study_id, specimen_id) references specimens deferrable initially deferred
);
create table findings (
  study_id uuid not null references studies on delete cascade,
  specimen_id text not null,
  zone_id text not null,
  inspector text not null,
  defect text not null,
  grade integer not null,
  cause text,
  note text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, specimen_id, zone_id, inspector, defect),
  foreign key (study_id, specimen_id) references specimens deferrable initially deferred
);
create table photos (
  study_id uuid not null references studies on delete cascade,
  specimen_id text not null,
  path text not null,
  view text,
  px_per_mm double precision,
  taken_at text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, specimen_id, path),
  foreign key (study_id, specimen_id) references specimens deferrable initially deferred
);
create table panels (
  study_id uuid not null references studies on delete cascade,
  panel_id text not null,
  kind text not null,
  aspect text not null,
  artefact_id text,
  target text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, panel_id),
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred,
  foreign key (study_id, target) references contenders deferrable initially deferred
);
create index on panels (study_id, artefact_id);
create index on panels (study_id, target);
create table ballots (
  study_id uuid not null references studies on delete cascade,
  panel_id text not null,
  judge text not null,
  item_1 text not null,
  item_2 text not null,
  item_3 text,
  "choice" text not null,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  foreign key (study_id, panel_id) references panels deferrable initially deferred,
  foreign key (study_id, item_1) references specimens deferrable initially deferred,
  foreign key (study_id, item_2) references specimens deferrable initially deferred,
  foreign key (study_id, item_3) references specimens deferrable initially deferred
);
create index on ballots (study_id, item_1);
create index on ballots (study_id, item_2);
create index on ballots (study_id, item_3);
create table claims (
  study_id uuid not null references studies on delete cascade,
  claim_id text not null,
  machine_id text not null,
  statement text not null,
  quantity text,
  unit text,
  "value" double precision,
  finding text,
  evidence text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, claim_id),
  foreign key (study_id, machine_id) references machines deferrable initially deferred
);
create index on claims (study_id, machine_id);
create table noise (
  study_id uuid not null references studies on delete cascade,
  machine_id text not null,
  state text not null,
  distance_m double precision not null,
  db_a double precision not null,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, machine_id, state, distance_m),
  foreign key (study_id, machine_id) references machines deferrable initially deferred
);
create unique index readings_key on readings
  (study_id, specimen_id, dimension_id, instrument_id, operator, trial)
  nulls not distinct where superseded_at is null;
create unique index ballots_key on ballots
  (study_id, panel_id, judge, item_1, item_2, item_3) nulls not distinct;
`;

export const down = `
drop table noise, claims, ballots, panels, photos, findings, inspections, function_results,
  ladder_results, unmeasured, readings, instruments;
`;

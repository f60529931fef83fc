/** Where things are on an artefact, what is checked on it, and what its mesh shows. */
export const up = `
create table dimension_places (
  study_id uuid not null references studies on delete cascade,
  artefact_id text not null,
  dimension_id text not null,
  x1_mm double precision not null,
  y1_mm double precision not null,
  z1_mm double precision not null,
  x2_mm double precision not null,
  y2_mm double precision not null,
  z2_mm double precision not null,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, artefact_id, dimension_id),
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred
);
create table retired_dimensions (
  study_id uuid not null references studies on delete cascade,
  artefact_id text not null,
  dimension_id text not null,
  at text,
  reason text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, artefact_id, dimension_id),
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred
);
create table ladder_places (
  study_id uuid not null references studies on delete cascade,
  artefact_id text not null,
  ladder_id text not null,
  step integer not null,
  x_mm double precision not null,
  y_mm double precision not null,
  z_mm double precision not null,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, artefact_id, ladder_id, step),
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred
);
create table zone_places (
  study_id uuid not null references studies on delete cascade,
  artefact_id text not null,
  zone_id text not null,
  side text not null,
  u1_mm double precision not null,
  v1_mm double precision not null,
  u2_mm double precision not null,
  v2_mm double precision not null,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, artefact_id, zone_id),
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred
);
create table copy_places (
  study_id uuid not null references studies on delete cascade,
  artefact_id text not null,
  copy integer not null,
  x_mm double precision not null,
  y_mm double precision not null,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, artefact_id, copy),
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred
);
create table function_checks (
  study_id uuid not null references studies on delete cascade,
  artefact_id text not null,
  "check" text not null,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, artefact_id, "check"),
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred
);
create table zero_checks (
  study_id uuid not null references studies on delete cascade,
  zero_check_id text not null,
  instrument_id text not null,
  at text not null,
  value_mm double precision not null,
  operator text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, zero_check_id),
  foreign key (study_id, instrument_id) references instruments deferrable initially deferred
);
create table gauge_plans (
  study_id uuid not null references studies on delete cascade,
  gauge_plan_id text not null,
  instrument_id text not null,
  artefact_id text not null,
  dimension_id text not null,
  specimens text not null,
  operators text not null,
  trials integer not null,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, gauge_plan_id),
  foreign key (study_id, instrument_id) references instruments deferrable initially deferred,
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred
);
create table mesh_sheets (
  sha256 text not null,
  edition text not null,
  content json not null,
  primary key (sha256, edition)
);
`;

export const down = `
drop table mesh_sheets, gauge_plans, zero_checks, function_checks, copy_places, zone_places,
  ladder_places, retired_dimensions, dimension_places;
`;

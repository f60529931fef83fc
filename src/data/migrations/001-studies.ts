/** The study, its line-up, its artefacts and its prints. */
export const up = `
create table studies (
  study_id uuid primary key,
  name text not null,
  title text not null,
  description text,
  created text,
  intent text not null,
  question text,
  reference text,
  smallest_difference json not null default '{}',
  cost json,
  scorecard json,
  package_extras json not null default '{}',
  present text[] not null default '{}',
  revision bigint not null default 1,
  version integer not null default 1,
  created_at timestamptz not null default now(),
  updated_at timestamptz not null default now(),
  deleted_at timestamptz
);

create table machines (
  study_id uuid not null references studies on delete cascade,
  machine_id text not null,
  name text not null,
  maker text,
  kinematics text,
  build_x_mm double precision,
  build_y_mm double precision,
  build_z_mm double precision,
  nozzle_mm double precision,
  claimed_speed_mm_s double precision,
  claimed_accel_mm_s2 double precision,
  max_flow_mm3_s double precision,
  price_list double precision,
  price_paid double precision,
  currency text,
  obtained text,
  firmware text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, machine_id)
);
create table profiles (
  study_id uuid not null references studies on delete cascade,
  profile_id text not null,
  name text not null,
  kind text not null,
  parent_id text,
  slicer text,
  slicer_version text,
  notes text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, profile_id),
  foreign key (study_id, parent_id) references profiles deferrable initially deferred
);
create index on profiles (study_id, parent_id);
create table profile_settings (
  study_id uuid not null references studies on delete cascade,
  profile_id text not null,
  "key" text not null,
  "value" text not null,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, profile_id, key),
  foreign key (study_id, profile_id) references profiles deferrable initially deferred
);
create table materials (
  study_id uuid not null references studies on delete cascade,
  material_id text not null,
  type text not null,
  maker text,
  colour text,
  lot text,
  diameter_mm double precision,
  density_g_cm3 double precision,
  price_per_kg double precision,
  currency text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, material_id)
);
create table contenders (
  study_id uuid not null references studies on delete cascade,
  contender_id text not null,
  label text not null,
  machine_id text not null,
  profile_id text not null,
  change text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, contender_id),
  foreign key (study_id, machine_id) references machines deferrable initially deferred,
  foreign key (study_id, profile_id) references profiles deferrable initially deferred
);
create index on contenders (study_id, machine_id);
create index on contenders (study_id, profile_id);
create table artefacts (
  study_id uuid not null references studies on delete cascade,
  artefact_id text not null,
  name text not null,
  version text,
  mesh text,
  mesh_sha256 text,
  notes text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, artefact_id)
);
create table dimensions (
  study_id uuid not null references studies on delete cascade,
  artefact_id text not null,
  dimension_id text not null,
  name text not null,
  axis text not null,
  kind text not null,
  nominal_mm double precision not null,
  lower_tol_mm double precision,
  upper_tol_mm double precision,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, artefact_id, dimension_id),
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred
);
create table ladders (
  study_id uuid not null references studies on delete cascade,
  artefact_id text not null,
  ladder_id text not null,
  name text not null,
  quantity text not null,
  unit text not null,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, artefact_id, ladder_id),
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred
);
create table ladder_steps (
  study_id uuid not null references studies on delete cascade,
  artefact_id text not null,
  ladder_id text not null,
  step integer not null,
  "value" double precision not null,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, artefact_id, ladder_id, step),
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred
);
create table zones (
  study_id uuid not null references studies on delete cascade,
  artefact_id text not null,
  zone_id text not null,
  name text not null,
  weight double precision,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, artefact_id, zone_id),
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred
);
create table squares (
  study_id uuid not null references studies on delete cascade,
  artefact_id text not null,
  square_id text not null,
  side_a text not null,
  side_b text not null,
  diagonal_1 text not null,
  diagonal_2 text not null,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, artefact_id, square_id),
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred
);
create table prints (
  study_id uuid not null references studies on delete cascade,
  print_id text not null,
  contender_id text not null,
  artefact_id text not null,
  material_id text not null,
  repeat integer not null,
  "order" integer,
  started_at text,
  ended_at text,
  estimate_s double precision,
  heat_s double precision,
  print_s double precision,
  paused_s double precision,
  filament_g double precision,
  waste_g double precision,
  filament_m double precision,
  energy_wh double precision,
  outcome text not null,
  progress_pct double precision,
  firmware text,
  plate text,
  nozzle_mm double precision,
  ambient_c double precision,
  humidity_pct double precision,
  noise_db double precision,
  noise_distance_m double precision,
  operator text,
  toolpath text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, print_id),
  foreign key (study_id, contender_id) references contenders deferrable initially deferred,
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred,
  foreign key (study_id, material_id) references materials deferrable initially deferred
);
create index on prints (study_id, contender_id);
create index on prints (study_id, artefact_id);
create index on prints (study_id, material_id);
create table open_prints (
  study_id uuid not null references studies on delete cascade,
  print_id text not null,
  contender_id text not null,
  artefact_id text not null,
  material_id text not null,
  repeat integer not null,
  "order" integer,
  started_at text,
  ended_at text,
  estimate_s double precision,
  heat_s double precision,
  print_s double precision,
  paused_s double precision,
  filament_g double precision,
  waste_g double precision,
  filament_m double precision,
  energy_wh double precision,
  progress_pct double precision,
  firmware text,
  plate text,
  nozzle_mm double precision,
  ambient_c double precision,
  humidity_pct double precision,
  noise_db double precision,
  noise_distance_m double precision,
  operator text,
  toolpath text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, print_id),
  foreign key (study_id, contender_id) references contenders deferrable initially deferred,
  foreign key (study_id, artefact_id) references artefacts deferrable initially deferred,
  foreign key (study_id, material_id) references materials deferrable initially deferred
);
create index on open_prints (study_id, contender_id);
create index on open_prints (study_id, artefact_id);
create index on open_prints (study_id, material_id);
create table incidents (
  study_id uuid not null references studies on delete cascade,
  incident_id text not null,
  machine_id text not null,
  print_id text,
  at text,
  progress_pct double precision,
  mode text not null,
  cause text not null,
  action text,
  downtime_s double precision,
  hands_s double precision,
  note text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, incident_id),
  foreign key (study_id, machine_id) references machines deferrable initially deferred
);
create index on incidents (study_id, machine_id);
create index on incidents (study_id, print_id);
create table specimens (
  study_id uuid not null references studies on delete cascade,
  specimen_id text not null,
  print_id text not null,
  copy integer,
  plate_x_mm double precision,
  plate_y_mm double precision,
  code text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, specimen_id),
  foreign key (study_id, print_id) references prints deferrable initially deferred
);
create index on specimens (study_id, print_id);
`;

export const down = `
drop table specimens, incidents, open_prints, prints, squares, zones, ladder_steps, ladders, dimensions,
  artefacts, contenders, materials, profile_settings, profiles, machines, studies;
`;

/** What is marked and measured on photos, after-work, what is known of a machine, the answer in words. */
export const up = `
alter table studies add column scorecards json, add column sweep json;
alter table photos add column light text, add column session text;
alter table ballots add column at text;
alter table findings
  add column "view" text, add column x_mm double precision, add column y_mm double precision,
  add column w_mm double precision, add column h_mm double precision, add column "path" text;
create table photo_marks (
  study_id uuid not null references studies on delete cascade,
  specimen_id text not null,
  "path" text not null,
  mark integer not null,
  u_px double precision not null,
  v_px double precision not null,
  x_mm double precision not null,
  y_mm double precision not null,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, specimen_id, "path", mark),
  foreign key (study_id, specimen_id) references specimens deferrable initially deferred,
  foreign key (study_id, specimen_id, "path") references photos deferrable initially deferred
);
create table photo_measures (
  study_id uuid not null references studies on delete cascade,
  specimen_id text not null,
  "path" text not null,
  measure_id text not null,
  measure text not null,
  x double precision not null,
  y double precision not null,
  w double precision not null,
  h double precision not null,
  unit text not null,
  layer_height_mm double precision,
  speed_mm_s double precision,
  background text,
  operator text,
  "at" text,
  value_key text,
  "value" double precision,
  low double precision,
  high double precision,
  "found" text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, measure_id),
  foreign key (study_id, specimen_id) references specimens deferrable initially deferred,
  foreign key (study_id, specimen_id, "path") references photos deferrable initially deferred
);
create index on photo_measures (study_id, specimen_id);
create table photo_values (
  study_id uuid not null references studies on delete cascade,
  measure_id text not null,
  "key" text not null,
  "value" double precision,
  low double precision,
  high double precision,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, measure_id, "key"),
  foreign key (study_id, measure_id) references photo_measures deferrable initially deferred
);
create table aftercare (
  study_id uuid not null references studies on delete cascade,
  specimen_id text not null,
  "kind" text not null,
  minutes double precision not null,
  damage integer,
  operator text,
  note text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, ordinal),
  foreign key (study_id, specimen_id) references specimens deferrable initially deferred
);
create unique index aftercare_key on aftercare (study_id, specimen_id, "kind", operator) nulls not distinct;
create table setup_steps (
  study_id uuid not null references studies on delete cascade,
  machine_id text not null,
  step integer not null,
  "kind" text not null,
  minutes double precision,
  hands_s double precision,
  snag integer,
  help text,
  "at" text,
  "what" text not null,
  note text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, machine_id, step),
  foreign key (study_id, machine_id) references machines deferrable initially deferred
);
create table checks (
  study_id uuid not null references studies on delete cascade,
  machine_id text not null,
  check_id text not null,
  "what" text not null,
  "value" double precision,
  unit text,
  lower double precision,
  upper double precision,
  method text,
  "at" text,
  note text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, check_id),
  foreign key (study_id, machine_id) references machines deferrable initially deferred
);
create index on checks (study_id, machine_id);
create table heat_ups (
  study_id uuid not null references studies on delete cascade,
  machine_id text not null,
  "what" text not null,
  from_c double precision not null,
  to_c double precision not null,
  seconds double precision not null,
  ambient_c double precision,
  "at" text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, ordinal),
  foreign key (study_id, machine_id) references machines deferrable initially deferred
);
create index on heat_ups (study_id, machine_id);
create table trials (
  study_id uuid not null references studies on delete cascade,
  trial_id text not null,
  machine_id text not null,
  feature text not null,
  provoked text not null,
  expected text,
  observed text,
  outcome text not null,
  delay_s double precision,
  waste_g double precision,
  "at" text,
  operator text,
  note text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, trial_id),
  foreign key (study_id, machine_id) references machines deferrable initially deferred
);
create index on trials (study_id, machine_id);
create table marks (
  study_id uuid not null references studies on delete cascade,
  machine_id text not null,
  aspect text not null,
  sign text not null,
  "value" double precision,
  "text" text not null,
  evidence text,
  operator text,
  "at" text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, ordinal),
  foreign key (study_id, machine_id) references machines deferrable initially deferred
);
create index on marks (study_id, machine_id);
create table material_notes (
  study_id uuid not null references studies on delete cascade,
  machine_id text not null,
  "type" text not null,
  needs text,
  "text" text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, machine_id, "type"),
  foreign key (study_id, machine_id) references machines deferrable initially deferred
);
create table borrowed (
  study_id uuid not null references studies on delete cascade,
  borrowed_id text not null,
  machine_id text not null,
  "source" text not null,
  address text,
  "at" text,
  statement text not null,
  quantity text,
  "value" double precision,
  unit text,
  trust integer,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, borrowed_id),
  foreign key (study_id, machine_id) references machines deferrable initially deferred
);
create index on borrowed (study_id, machine_id);
create table follow_ups (
  study_id uuid not null references studies on delete cascade,
  follow_up_id text not null,
  print_before text not null,
  print_after text not null,
  suspect text not null,
  changed text not null,
  outcome text not null,
  finding text,
  note text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, follow_up_id),
  foreign key (study_id, print_before) references prints deferrable initially deferred,
  foreign key (study_id, print_after) references prints deferrable initially deferred
);
create index on follow_ups (study_id, print_before);
create index on follow_ups (study_id, print_after);
create table verdicts (
  study_id uuid not null references studies on delete cascade,
  verdict_id text not null,
  contender_id text,
  "kind" text not null,
  "order" integer not null,
  "text" text not null,
  evidence text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, verdict_id),
  foreign key (study_id, contender_id) references contenders deferrable initially deferred
);
create index on verdicts (study_id, contender_id);
`;

export const down = `
drop table verdicts, follow_ups, borrowed, material_notes, marks, trials, heat_ups, checks,
  setup_steps, aftercare, photo_values, photo_measures, photo_marks;
alter table findings drop column "view", drop column x_mm, drop column y_mm, drop column w_mm,
  drop column h_mm, drop column "path";
alter table ballots drop column at;
alter table photos drop column light, drop column session;
alter table studies drop column scorecards, drop column sweep;
`;

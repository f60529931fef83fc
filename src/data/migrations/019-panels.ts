/** Blind panels: how they were held, what is shown in them, who judges, and what was answered. */

const ROW = `
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity`;
const PANEL = 'foreign key (study_id, panel_id) references panels deferrable initially deferred';
const ACTOR = `default nullif(current_setting('vergleich.actor', true), '')`;

export const up = `
create table panel_setups (
  study_id uuid not null references studies on delete cascade,
  panel_id text not null,
  shown_as text not null,
  names text not null,
  view text,
  light text,
  x_mm double precision,
  y_mm double precision,
  w_mm double precision,
  h_mm double precision,
  levels text,
  judges integer not null,
  questions integer not null,
  asked_again integer,
  effect double precision,
  closes_at text,
  opened_at text,
  closed_at text,
  closed_by text,
  revealed_at text,
  ${ROW},
  primary key (study_id, panel_id),
  ${PANEL}
);
create table panel_notes (
  study_id uuid not null references studies on delete cascade,
  panel_id text not null,
  at text not null,
  "what" text not null,
  operator text,
  note text not null,
  entered_by text ${ACTOR},
  ${ROW},
  primary key (study_id, panel_id, at, "what"),
  ${PANEL}
);
create table ballot_times (
  study_id uuid not null references studies on delete cascade,
  panel_id text not null,
  judge text not null,
  item_1 text not null,
  item_2 text not null,
  item_3 text,
  seconds double precision not null,
  ${ROW},
  primary key (study_id, ordinal),
  ${PANEL},
  foreign key (study_id, item_1) references specimens deferrable initially deferred,
  foreign key (study_id, item_2) references specimens deferrable initially deferred,
  foreign key (study_id, item_3) references specimens deferrable initially deferred
);
create unique index ballot_times_key on ballot_times
  (study_id, panel_id, judge, item_1, item_2, item_3) nulls not distinct;
create index on ballot_times (study_id, item_1);
create index on ballot_times (study_id, item_2);
create index on ballot_times (study_id, item_3);

create table panel_runs (
  study_id uuid not null,
  panel_id text not null,
  link text not null unique check (length(link) = 43),
  seed integer not null,
  picture_bytes integer check (picture_bytes > 0),
  primary key (study_id, panel_id),
  foreign key (study_id, panel_id) references panel_setups on delete cascade
);
create table panel_items (
  study_id uuid not null,
  panel_id text not null,
  specimen_id text not null,
  "path" text,
  sha256 text references stored_files,
  taken_out_at timestamptz,
  primary key (study_id, panel_id, specimen_id),
  foreign key (study_id, panel_id) references panel_setups on delete cascade,
  foreign key (study_id, specimen_id) references specimens deferrable initially deferred
);
create index on panel_items (sha256);
create index on panel_items (study_id, specimen_id);
create table panel_judges (
  judge_id uuid primary key,
  study_id uuid not null,
  panel_id text not null,
  number integer not null check (number >= 1),
  name text not null check (name <> '' and length(name) <= 40),
  token_hash bytea unique check (length(token_hash) = 32),
  begun_at timestamptz,
  answered_at timestamptz,
  ended_at timestamptz,
  unique (study_id, panel_id, number),
  unique (study_id, panel_id, name),
  foreign key (study_id, panel_id) references panel_runs on delete cascade
);
create table panel_questions (
  judge_id uuid not null references panel_judges on delete cascade,
  place integer not null check (place >= 0),
  items text[] not null check (cardinality(items) between 2 and 3),
  codes text[] not null check (cardinality(codes) = cardinality(items)),
  pictures uuid[] not null,
  asks_again integer,
  choice text check (choice in ('1', '2', '3', 'tie')),
  asked_at timestamptz,
  answered_at timestamptz,
  seconds double precision check (seconds >= 0),
  primary key (judge_id, place),
  check ((choice is null) = (answered_at is null))
);
`;

export const down = `
drop table panel_questions, panel_judges, panel_items, panel_runs, ballot_times, panel_notes, panel_setups;
`;

/** What is known of a study's photos, and what is made of them: smaller ones, and their view in tiles. */
export const up = `
create table pictures (
  study_id uuid not null,
  "path" text not null,
  name text not null,
  told json,
  state text not null default 'waiting',
  message text,
  width integer,
  height integer,
  taken_at text,
  codes json,
  laid json,
  arrived bigint generated always as identity,
  primary key (study_id, "path"),
  foreign key (study_id, "path") references study_files on delete cascade
);
create table picture_parts (
  study_id uuid not null,
  "path" text not null,
  kind text not null,
  level integer not null,
  "column" integer not null,
  "row" integer not null,
  width integer not null,
  height integer not null,
  sha256 text not null references stored_files,
  primary key (study_id, "path", kind, level, "column", "row"),
  foreign key (study_id, "path") references pictures on delete cascade
);
create index on picture_parts (sha256);
`;

export const down = `
drop table picture_parts, pictures;
`;

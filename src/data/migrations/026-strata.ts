/**
 * Prints of several materials, how they held to their plates and what was bought beside a machine; where a profile
 * comes from, what a contender is printed in, what of a part a figure on photos is of; what a study is crossed with.
 */

export const up = `
alter table studies add column factor text, add column farm json;
alter table machines
  add column outer_x_mm double precision, add column outer_y_mm double precision,
  add column outer_z_mm double precision, add column mass_kg double precision,
  add column power_w double precision, add column hours_before double precision,
  add column return_by text;
alter table profiles add column origin text, add column source text, add column got_at text;
alter table contenders add column material_id text,
  add foreign key (study_id, material_id) references materials deferrable initially deferred;
create index on contenders (study_id, material_id);
alter table artefacts
  add column author text, add column licence text, add column source text, add column publish text,
  add column supports text, add column adhesion text, add column orientation text;
alter table specimens add column angle_deg double precision;
alter table photo_measures add column feature text;
alter table aftercare add column residue integer;
alter table claims add column for_h double precision, add column for_days double precision, add column "at" text;

create table print_materials (
  study_id uuid not null references studies on delete cascade,
  print_id text not null,
  slot integer not null,
  material_id text not null,
  filament_g double precision,
  purge_g double precision,
  changes integer,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, print_id, slot),
  foreign key (study_id, print_id) references prints deferrable initially deferred,
  foreign key (study_id, material_id) references materials deferrable initially deferred
);
create index on print_materials (study_id, material_id);
create table plate_uses (
  study_id uuid not null references studies on delete cascade,
  print_id text not null,
  surface text,
  aid text,
  coats double precision,
  cleaned text,
  hold text not null,
  lift_mm double precision,
  part_c double precision,
  release text,
  release_s double precision,
  damage integer,
  underside integer,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, print_id),
  foreign key (study_id, print_id) references prints deferrable initially deferred
);
create table equipment (
  study_id uuid not null references studies on delete cascade,
  machine_id text not null,
  item text not null,
  kind text not null,
  price double precision not null,
  currency text,
  "at" text,
  note text,
  extras jsonb,
  row_version integer not null default 1,
  ordinal bigint generated always as identity,
  primary key (study_id, ordinal),
  foreign key (study_id, machine_id) references machines deferrable initially deferred
);
create index on equipment (study_id, machine_id);
`;

export const down = `
drop table equipment, plate_uses, print_materials;
alter table claims drop column for_h, drop column for_days, drop column "at";
alter table aftercare drop column residue;
alter table photo_measures drop column feature;
alter table specimens drop column angle_deg;
alter table artefacts
  drop column author, drop column licence, drop column source, drop column publish,
  drop column supports, drop column adhesion, drop column orientation;
alter table contenders drop column material_id;
alter table profiles drop column origin, drop column source, drop column got_at;
alter table machines
  drop column outer_x_mm, drop column outer_y_mm, drop column outer_z_mm, drop column mass_kg,
  drop column power_w, drop column hours_before, drop column return_by;
alter table studies drop column factor, drop column farm;
`;

/** What became of the backups that are made by themselves. */

export const up = `
create table backups (
  backup_id bigint generated always as identity primary key,
  at timestamptz not null default now(),
  file text not null,
  bytes bigint check (bytes >= 0),
  rows bigint check (rows >= 0),
  fault text,
  check ((fault is null) = (bytes is not null))
);
`;

export const down = `
drop table backups;
`;

/** Who may come in: people, their devices, keys for programs, links of one use; and who did what. */

/** The tables that people at the bench write into: each row keeps who entered it. */
const ENTERED = [
  'prints',
  'open_prints',
  'print_events',
  'incidents',
  'incident_photos',
  'specimens',
  'readings',
  'unmeasured',
  'zero_checks',
  'ladder_results',
  'function_results',
  'inspections',
  'findings',
  'photos',
  'photo_marks',
  'aftercare',
  'noise',
  'setup_steps',
  'checks',
  'heat_ups',
  'trials',
  'marks',
];
const ACTOR = `default nullif(current_setting('vergleich.actor', true), '')`;

export const up = `
create table people (
  person_id uuid primary key,
  name text not null check (name <> '' and length(name) <= 80),
  initials text check (length(initials) <= 20),
  role text not null check (role in ('owner', 'evaluator', 'operator', 'reader')),
  password_hash text,
  closed_at timestamptz,
  created_at timestamptz not null default now(),
  row_version integer not null default 1
);
create unique index people_name on people (lower(name));
create table sessions (
  session_id uuid primary key,
  token_hash bytea not null unique check (length(token_hash) = 32),
  person_id uuid not null references people on delete cascade,
  role text not null check (role in ('owner', 'evaluator', 'operator', 'reader')),
  device text not null check (length(device) <= 200),
  address text not null,
  made_at timestamptz not null default now(),
  used_at timestamptz not null default now()
);
create index on sessions (person_id);
create table access_keys (
  key_id uuid primary key,
  name text not null check (name <> '' and length(name) <= 80),
  token_hash bytea not null unique check (length(token_hash) = 32),
  role text not null check (role in ('evaluator', 'operator', 'reader')),
  made_by uuid not null references people,
  made_at timestamptz not null default now(),
  ends_at timestamptz not null,
  used_at timestamptz,
  revoked_at timestamptz
);
create table access_links (
  token_hash bytea primary key check (length(token_hash) = 32),
  kind text not null check (kind in ('owner', 'device', 'person')),
  person_id uuid references people on delete cascade,
  role text check (role in ('owner', 'evaluator', 'operator', 'reader')),
  leads_to text,
  ends_at timestamptz not null,
  used_at timestamptz
);
create table access_log (
  entry_id bigint generated always as identity primary key,
  at timestamptz not null default now(),
  what text not null,
  actor text,
  name text,
  address text,
  detail jsonb not null default '{}'
);
create index on access_log (at);
create table sign_in_tries (
  key varchar(255) primary key,
  points integer not null default 0,
  expire bigint
);
alter table changes add column actor text ${ACTOR};
${ENTERED.map((table) => `alter table ${table} add column entered_by text ${ACTOR};`).join('\n')}
`;

export const down = `
${ENTERED.map((table) => `alter table ${table} drop column entered_by;`).join('\n')}
alter table changes drop column actor;
drop table sign_in_tries, access_log, access_links, access_keys, sessions, people;
`;

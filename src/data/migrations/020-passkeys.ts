/** Passkeys of people, and the challenges that browsers are to sign with them. */

export const up = `
create table passkeys (
  passkey_id uuid primary key,
  person_id uuid not null references people on delete cascade,
  credential_id text not null unique check (length(credential_id) <= 1400),
  public_key bytea not null check (length(public_key) <= 4096),
  counter bigint not null check (counter >= 0),
  transports text not null default '',
  rp_id text not null check (length(rp_id) <= 253),
  name text not null check (name <> '' and length(name) <= 80),
  made_at timestamptz not null default now(),
  used_at timestamptz
);
create index on passkeys (person_id);
create table passkey_challenges (
  challenge text primary key check (length(challenge) <= 200),
  person_id uuid references people on delete cascade,
  ends_at timestamptz not null
);
`;

export const down = `
drop table passkey_challenges, passkeys;
`;

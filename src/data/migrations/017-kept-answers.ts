/** What was done for a request that may be sent again: the same key has the same answer. */

export const up = `
create table kept_answers (
  key text not null check (length(key) <= 200),
  actor text not null,
  request text not null,
  status integer,
  type text,
  answer text,
  at timestamptz not null default now(),
  primary key (key, actor)
);
create index kept_answers_at on kept_answers (at);
`;

export const down = `
drop table kept_answers;
`;

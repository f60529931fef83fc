/** Which process works on which job: what a dead one was doing is taken up by another. */

export const up = `
create table jobs_at_work (
  job_id uuid primary key,
  queue text not null,
  process integer not null check (process > 0),
  since timestamptz not null default now()
);
`;

export const down = `
drop table jobs_at_work;
`;

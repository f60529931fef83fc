/** How a workshop sorts its studies: put aside, and labelled. */

export const up = `
alter table studies
  add column archived_at timestamptz,
  add column labels text[] not null default '{}';
`;

export const down = `
alter table studies drop column archived_at, drop column labels;
`;

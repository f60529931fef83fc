/** Who has begun an upload: nobody keeps more of them open than they can be sending. */

export const up = `
alter table uploads add column entered_by text
  default nullif(current_setting('vergleich.actor', true), '');
create index on uploads (entered_by);
`;

export const down = `
alter table uploads drop column entered_by;
`;

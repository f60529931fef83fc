/** What is said of a file while it is announced: it is filed with it, in the write that enters it. */

export const up = `
alter table uploads add column told jsonb;
`;

export const down = `
alter table uploads drop column told;
`;

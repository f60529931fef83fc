/** What a sender states about a file as it announces it: kept until the file is entered with it. */

export const up = `
alter table uploads add column told jsonb;
`;

export const down = `
alter table uploads drop column told;
`;

/** Whom a history named that came in a package: they are no people of this workshop. */

export const up = `
alter table changes add column person text;
`;

export const down = `
alter table changes drop column person;
`;

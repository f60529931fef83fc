/** The job that a machine's print was opened for. */
export const up = `alter table link_machines add column printed_job text;`;

export const down = `alter table link_machines drop column printed_job;`;

/** The latest prints of a place of the matrix are found by an index, also on a farm. */

export const up = `
create index prints_latest on prints (study_id, contender_id, artefact_id, ordinal);
drop index prints_study_id_contender_id_idx;
`;

export const down = `
create index on prints (study_id, contender_id);
drop index prints_latest;
`;

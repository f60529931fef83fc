/** What somebody may be here. */
export const ROLES = ['owner', 'evaluator', 'operator', 'reader'] as const;
/** Every role, those too that no person has. */
export const EVERY_ROLE = [...ROLES, 'machine', 'judge'] as const;
/**
 * A machine speaks on the bench link, under its own name, and may nothing else; a judge answers in the one panel
 * whose link they have, and may nothing else.
 */
export type Role = (typeof EVERY_ROLE)[number];

/**
 * What can be allowed.
 *
 * - `see`: every study and result
 * - `export`: take a study out of the house
 * - `enter`: at the bench: prints, readings, grades, photos; and correct one's own
 * - `edit`: everything in studies and the workshop, anybody's entries too
 * - `delete`: a study, a thing of the workshop
 * - `own`: people, keys, doors, backups
 */
export const RIGHTS = ['see', 'export', 'enter', 'edit', 'delete', 'own'] as const;
export type Right = (typeof RIGHTS)[number];

const ALLOWED: Record<Role, ReadonlySet<Right>> = {
  owner: new Set(RIGHTS),
  evaluator: new Set<Right>(['see', 'export', 'enter', 'edit']),
  operator: new Set<Right>(['see', 'enter']),
  reader: new Set<Right>(['see', 'export']),
  machine: new Set<Right>(),
  judge: new Set<Right>(),
};

/** Whether a role has a right. */
export const may = (role: Role, right: Right): boolean => ALLOWED[role].has(right);

/** What a role is for, as its people read it. */
export const ROLE_WORDS: Record<Role, string> = {
  owner: 'everything: people, keys, deleting',
  evaluator: 'everything in studies',
  operator: 'prints, measures, inspects; corrects what is theirs',
  reader: 'sees and exports',
  machine: 'speaks on the bench link as itself, and nothing else',
  judge: 'answers in one blind panel, by its link, and nothing else',
};

/** Whether a role allows nothing that the other does not. */
export const isWithin = (role: Role, other: Role): boolean =>
  RIGHTS.every((right) => !may(role, right) || may(other, right));

/** The roles that somebody may hand on to a device: no more than their own, and never the owner's. */
export const handedOnBy = (role: Role): Role[] =>
  ROLES.filter((other) => other !== 'owner' && isWithin(other, role));

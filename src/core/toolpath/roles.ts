/** What a move is for. */
export const ROLES = [
  'outer-wall',
  'inner-wall',
  'overhang-wall',
  'top',
  'bottom',
  'solid',
  'sparse',
  'bridge',
  'gap-fill',
  'ironing',
  'support',
  'support-interface',
  'adhesion',
  'prime',
  'other',
  'extrude',
  'travel',
  'retract',
] as const;

export type Role = (typeof ROLES)[number];

export const roleIndex = (role: Role): number => ROLES.indexOf(role);

/** What a move is for. */
export const ROLES = [
  'outer-wall',
  'inner-wall',
  'wall-over-air',
  'top',
  'bottom',
  'solid',
  'infill',
  'bridge',
  'thin-fill',
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

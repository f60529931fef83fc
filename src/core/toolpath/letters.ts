/** The letters of words, as their bytes are. */
export const [E, F, G, I, J, , , P, R, S, T, X, Y, Z] = [
  69, 70, 71, 73, 74, 77, 78, 80, 82, 83, 84, 88, 89, 90,
] as const;

/** The axes of a machine, in order. */
export const AXES = [X, Y, Z] as const;

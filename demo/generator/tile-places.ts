/** Centres of the twelve tiles of a plate, in mm from its middle: as many as the Auklet's plate holds. */
export const TILE_PLACES: readonly (readonly [number, number])[] = [-69, -23, 23, 69].flatMap((x) =>
  [-66.5, 0, 66.5].map((y) => [x, y] as const),
);

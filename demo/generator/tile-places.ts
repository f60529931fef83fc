/** Centres of the twelve tiles of a plate, in mm from its middle. */
export const TILE_PLACES: readonly (readonly [number, number])[] = [-75, -25, 25, 75].flatMap((x) =>
  [-60, 0, 60].map((y) => [x, y] as const),
);

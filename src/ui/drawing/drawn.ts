import type { DrawnDimension } from './layout';

const nominalOf = (value: unknown): string => String(Number(Number(value).toFixed(3)));

/** Columns of a row, whatever else it holds. */
type Columns = Readonly<Record<string, unknown>>;

/** The dimensions of an artefact that have a place on its mesh, as they are drawn. */
export function drawnDimensions(
  dimensions: readonly Columns[],
  places: readonly Columns[],
): DrawnDimension[] {
  return dimensions.flatMap((row) => {
    const place = places.find((one) => one.dimension_id === row.dimension_id);
    if (!place) return [];
    const at = (end: 1 | 2) =>
      [
        Number(place[`x${end}_mm`]),
        Number(place[`y${end}_mm`]),
        Number(place[`z${end}_mm`]),
      ] as const;
    const id = String(row.dimension_id);
    const nominal = nominalOf(row.nominal_mm);
    const isRound = row.kind === 'hole' || row.kind === 'boss';
    const isShort = /^[a-z]+\d*$/.test(id);
    return [
      {
        id,
        label: isRound ? `⌀ ${nominal}` : isShort ? `${id} ${nominal}` : nominal,
        kind: String(row.kind),
        from: at(1),
        to: at(2),
      },
    ];
  });
}

import { sumOf } from '../../statistics/stats';
import type { Row, Study } from '../../model/study';

/** A lot of material: what is left of it, and what the plan still takes. */
export interface LotStock {
  material_id: string;
  /** Mass of its spools, g; null where none is entered. */
  bought_g: number | null;
  /** What prints took from it, g. */
  used_g: number;
  /** What of it nobody weighed, g: it is the sliced file's word, a guess, or not said whose. */
  not_weighed_g: number;
  left_g: number | null;
  /** What the prints still to be made take, g, by what the same prints took so far. */
  needed_g: number;
  /** Planned prints whose mass nobody knows yet. */
  unknown: number;
}

type Tables = Pick<Study['tables'], 'materials' | 'spools' | 'prints' | 'open_prints' | 'planned'>;

/**
 * Stock of every lot against its need.
 *
 * @param expected_g what a print of a contender's artefact is expected to take, g; null: not known
 */
export function lotStocks(
  tables: Tables,
  expected_g: (contender: string, artefact: string) => number | null,
): LotStock[] {
  return tables.materials.map(({ material_id }) => {
    const spools = tables.spools.filter((row) => row.material_id === material_id);
    const used = tables.prints.filter((row) => row.material_id === material_id);
    const used_g = sumOf(used, (row) => row.filament_g ?? 0);
    const bought_g = spools.length === 0 ? null : sumOf(spools, (row) => row.mass_g);
    const due = tables.planned
      .filter((row) => row.material_id === material_id)
      .map((row) => ({ row, prints: owedOf(row, tables) }));
    const masses = due.map(({ row, prints }) => ({
      prints,
      each: expected_g(row.contender_id, row.artefact_id),
    }));
    return {
      material_id,
      bought_g,
      used_g,
      not_weighed_g: sumOf(used, (row) =>
        row.filament_from === 'weighed' ? 0 : (row.filament_g ?? 0),
      ),
      left_g: bought_g === null ? null : bought_g - used_g,
      needed_g: sumOf(masses, ({ prints, each }) => prints * (each ?? 0)),
      unknown: sumOf(masses, ({ prints, each }) => (each === null ? prints : 0)),
    };
  });
}

/** Planned prints of a cell and material that are neither made nor running. */
function owedOf(plan: Row<'planned'>, { prints, open_prints }: Tables): number {
  const made = [...prints, ...open_prints].filter(
    (row) =>
      row.contender_id === plan.contender_id &&
      row.artefact_id === plan.artefact_id &&
      row.material_id === plan.material_id,
  );
  return Math.max(0, plan.repeats - made.length);
}

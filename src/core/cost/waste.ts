import { sum, sumOf } from '../stats';
import type { StudyIndex } from '../study';

/** What left the spool and was no part. */
export interface Waste {
  /** Prints that know both masses. */
  prints: number;
  filament_g: number;
  waste_g: number;
  share: number | null;
  /** Energy over all prints that know it, Wh. */
  energy_wh: number | null;
  notes: string[];
}

/** Waste and energy of every contender. */
export const wasteOfAll = (index: StudyIndex): Record<string, Waste> =>
  Object.fromEntries(
    index.study.tables.contenders.map(({ contender_id }) => {
      const prints = index.printsOfContender.get(contender_id) ?? [];
      const weighed = prints.filter((row) => row.waste_g !== null && row.filament_g !== null);
      const filament_g = sumOf(weighed, (row) => row.filament_g ?? 0);
      const waste_g = sumOf(weighed, (row) => row.waste_g ?? 0);
      const energies = prints.flatMap((row) => row.energy_wh ?? []);
      const missing = prints.length - weighed.length;
      const waste: Waste = {
        prints: weighed.length,
        filament_g,
        waste_g,
        share: filament_g > 0 ? waste_g / filament_g : null,
        energy_wh: energies.length > 0 ? sum(energies) : null,
        notes: missing > 0 ? [`prints that do not know both masses: ${missing}`] : [],
      };
      return [contender_id, waste];
    }),
  );

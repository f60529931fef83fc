import { sum, sumOf } from '../../statistics/stats';
import { ALLOWANCE, type Print, type StudyIndex } from '../../model/study';

/** What left the spool and was no part. */
export interface Waste {
  /** Prints that know both masses. */
  prints: number;
  filament_g: number;
  waste_g: number;
  share: number | null;
  /** Energy over all prints that know it, Wh. */
  energy_wh: number | null;
  /** Share of the grams that were not weighed: they are the file's, a guess, or nobody said. */
  not_weighed_share: number | null;
  /** What is purged at each change of material, g. */
  purge_g_per_change: number | null;
  notes: string[];
}

/** From this share on a note says how much was not weighed. */
const MUCH_NOT_WEIGHED = 0.1;

/** Share of the grams of some prints that were not weighed; null where no grams are known. */
function notWeighedShare(prints: readonly Print[]): number | null {
  const grams = (rows: readonly Print[]) => sumOf(rows, (row) => row.filament_g ?? 0);
  const all = grams(prints);
  return all > 0 ? grams(prints.filter((row) => row.filament_from !== 'weighed')) / all : null;
}

/** A note where much of the grams was not weighed. */
export function notWeighed(prints: readonly Print[]): string[] {
  const share = notWeighedShare(prints) ?? 0;
  return share > MUCH_NOT_WEIGHED + ALLOWANCE
    ? [`grams that were not weighed: ${(100 * share).toFixed(0)} %`]
    : [];
}

function purgePerChange(index: StudyIndex, prints: readonly Print[]): number | null {
  const known = prints
    .flatMap((print) => index.materialsOfPrint.get(print.print_id) ?? [])
    .filter((row) => row.purge_g !== null && row.changes !== null);
  const changes = sumOf(known, (row) => row.changes ?? 0);
  return changes > 0 ? sumOf(known, (row) => row.purge_g ?? 0) / changes : null;
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
        not_weighed_share: notWeighedShare(prints),
        purge_g_per_change: purgePerChange(index, prints),
        notes: [
          ...(missing > 0 ? [`prints that do not know both masses: ${missing}`] : []),
          ...notWeighed(prints),
        ],
      };
      return [contender_id, waste];
    }),
  );

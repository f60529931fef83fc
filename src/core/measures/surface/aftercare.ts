import {
  gatherValues,
  meanOf,
  oneSideInterval,
  sumOf,
  type Interval,
} from '../../statistics/stats';
import { groupBy, type StudyIndex } from '../../model/study';

/** What hands did to a contender's parts of an artefact once they were printed. */
export interface Aftercare {
  /** Prints with a specimen that was looked at. */
  prints: number;
  /** Specimens that were looked at: 0 minutes are known, no row is not. */
  specimens: number;
  /** Minutes a part, over prints. */
  minutes: Interval;
  /** The worst damage that it left, 0–4; null where nobody said. */
  damage_max: number | null;
  notes: string[];
}

/** After-work of every contender, by artefact. */
export function aftercareOfAll(
  index: StudyIndex,
  alpha: number,
): Record<string, Record<string, Aftercare>> {
  const rowsOf = groupBy(index.study.tables.aftercare, (row) => row.specimen_id);
  return Object.fromEntries(
    index.study.tables.contenders.map(({ contender_id }) => {
      const prints = index.printsOfContender.get(contender_id) ?? [];
      const byArtefact = [...groupBy(prints, (print) => print.artefact_id)].flatMap(
        ([artefact, own]) => {
          const groups = own.flatMap((print) => {
            const parts = (index.specimensOfPrint.get(print.print_id) ?? []).flatMap((specimen) => {
              const rows = rowsOf.get(specimen.specimen_id);
              return rows ? [rows] : [];
            });
            return parts.length > 0 ? [{ print, parts }] : [];
          });
          if (groups.length === 0) return [];
          const minutes = gatherValues(
            groups.map(({ print, parts }) => [
              index.stratumOf(print),
              meanOf(parts, (rows) => sumOf(rows, (row) => row.minutes)),
            ]),
          );
          const looked = groups.flatMap(({ parts }) => parts);
          const damages = looked.flat().flatMap((row) => row.damage ?? []);
          const found: Aftercare = {
            prints: groups.length,
            specimens: looked.length,
            minutes: oneSideInterval(minutes, alpha),
            damage_max: damages.length > 0 ? Math.max(...damages) : null,
            notes: [],
          };
          return [[artefact, found] as const];
        },
      );
      return [contender_id, Object.fromEntries(byArtefact)];
    }),
  );
}

import { sumOf } from '../../statistics/stats';
import {
  groupBy,
  instant,
  type Incident,
  type IncidentMode,
  type StudyIndex,
} from '../../model/study';

/** What went wrong in one way. */
export interface ModeTally {
  mode: IncidentMode;
  count: number;
  downtime_s: number;
  /** Filament of failed and aborted prints, booked to the print's first incident, g. */
  lost_g: number;
  operator_count: number;
}

const when = (incident: Incident): number =>
  incident.at === null ? Infinity : instant(incident.at);

/** Incidents of every contender's prints by mode, the most frequent first. */
export function modesOfAll(index: StudyIndex): Record<string, ModeTally[]> {
  return Object.fromEntries(
    index.study.tables.contenders.map(({ contender_id }) => {
      const prints = index.printsOfContender.get(contender_id) ?? [];
      const lost = new Map<string, number>();
      const incidents = prints.flatMap((print) => {
        const own = [...(index.incidentsOfPrint.get(print.print_id) ?? [])];
        own.sort((a, b) => when(a) - when(b) || (a.incident_id < b.incident_id ? -1 : 1));
        const [first] = own;
        if (first && (print.outcome === 'failed' || print.outcome === 'aborted')) {
          lost.set(first.mode, (lost.get(first.mode) ?? 0) + (print.filament_g ?? 0));
        }
        return own;
      });
      const tallies = [...groupBy(incidents, (row) => row.mode)].map(([mode, rows]): ModeTally => ({
        mode,
        count: rows.length,
        downtime_s: sumOf(rows, (row) => row.downtime_s ?? 0),
        lost_g: lost.get(mode) ?? 0,
        operator_count: rows.filter((row) => row.cause === 'operator').length,
      }));
      tallies.sort(
        (a, b) => b.count - a.count || b.downtime_s - a.downtime_s || (a.mode < b.mode ? -1 : 1),
      );
      return [contender_id, tallies];
    }),
  );
}

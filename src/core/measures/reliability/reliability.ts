import {
  clopperPearson,
  poissonRate,
  sumOf,
  unknownInterval,
  wilson,
  type Interval,
} from '../../statistics/stats';
import { groupBy, type Incident, type Print, type StudyIndex } from '../../model/study';
import { printHours } from './hours';

/** How prints ended and what went wrong on the way. */
export interface Reliability {
  /** Attempts. */
  prints: number;
  /** Ended as success. */
  good: number;
  /** Usable after help. */
  rescued: number;
  /** Ended without a usable part. */
  failed: number;
  /** Stopped by a person. */
  aborted: number;
  /** Clopper–Pearson. */
  success: Interval;
  /** The same by Wilson’s interval. */
  success_wilson: Interval;
  /** Where every print succeeded: the failure rate is below this, one-sided. */
  failure_rate_below: number | null;
  /** Hours printed. */
  hours: number;
  /** Incidents noted; null where the study keeps none. */
  incidents: number | null;
  /** Incidents in 100 hours, with the exact Poisson interval. */
  per_100_h: Interval;
  /** Time that it stood still, as a share of the hours. */
  downtime_share: number | null;
  /** Minutes of hands in 100 hours. */
  hands_min_per_100_h: number | null;
  /** Filament used, m. */
  metres: number;
  /** What is not known, in words. */
  notes: string[];
}

export interface ReliabilitySets {
  /** Of all prints. */
  all: Reliability;
  /** Without those that only the operator spoilt. */
  without_operator: Reliability;
}

interface RunRecord {
  prints: readonly Print[];
  /** Null where the study keeps no incidents. */
  incidents: readonly Incident[] | null;
}

/** Reliability of every contender, and of every machine as `machine:<id>`. */
export function reliabilityOfAll(
  index: StudyIndex,
  alpha: number,
): Record<string, ReliabilitySets> {
  const { tables, present } = index.study;
  const hasIncidents = present.has('incidents');
  const sets: Record<string, ReliabilitySets> = {};
  for (const { contender_id } of tables.contenders) {
    const prints = index.printsOfContender.get(contender_id) ?? [];
    sets[contender_id] = bothSets(
      index,
      { prints, incidents: hasIncidents ? incidentsOf(index, prints) : null },
      alpha,
    );
  }
  const printsOfMachine = groupBy(
    tables.prints,
    (print) => index.contenders.get(print.contender_id)?.machine_id ?? '',
  );
  const loose = groupBy(
    tables.incidents.filter((incident) => incident.print_id === null),
    (incident) => incident.machine_id,
  );
  for (const { machine_id } of tables.machines) {
    const prints = printsOfMachine.get(machine_id) ?? [];
    const incidents = hasIncidents
      ? [...incidentsOf(index, prints), ...(loose.get(machine_id) ?? [])]
      : null;
    sets[`machine:${machine_id}`] = bothSets(index, { prints, incidents }, alpha);
  }
  return sets;
}

const incidentsOf = (index: StudyIndex, prints: readonly Print[]): Incident[] =>
  prints.flatMap((print) => index.incidentsOfPrint.get(print.print_id) ?? []);

/** Prints without those that are no success and that only the operator spoilt. */
export const withoutOperators = (index: StudyIndex, prints: readonly Print[]): Print[] =>
  prints.filter((print) => {
    const own = index.incidentsOfPrint.get(print.print_id) ?? [];
    return (
      print.outcome === 'success' ||
      own.length === 0 ||
      own.some((incident) => incident.cause !== 'operator')
    );
  });

function bothSets(index: StudyIndex, record: RunRecord, alpha: number): ReliabilitySets {
  return {
    all: reliabilityOf(record, alpha),
    without_operator: reliabilityOf(
      {
        prints: withoutOperators(index, record.prints),
        incidents: record.incidents?.filter((incident) => incident.cause !== 'operator') ?? null,
      },
      alpha,
    ),
  };
}

function reliabilityOf({ prints, incidents }: RunRecord, alpha: number): Reliability {
  const ended = (outcome: Print['outcome']) =>
    prints.filter((print) => print.outcome === outcome).length;
  const good = ended('success');
  const hours = sumOf(prints, (print) => printHours(print) ?? 0);
  const downtimeHours = sumOf(incidents ?? [], (row) => row.downtime_s ?? 0) / 3600;
  const handsMinutes = sumOf(incidents ?? [], (row) => row.hands_s ?? 0) / 60;
  const allGood = prints.length > 0 && good === prints.length;
  return {
    prints: prints.length,
    good,
    rescued: ended('rescued'),
    failed: ended('failed'),
    aborted: ended('aborted'),
    success: clopperPearson(good, prints.length, alpha),
    success_wilson: wilson(good, prints.length, alpha),
    failure_rate_below: allGood ? 1 - alpha ** (1 / prints.length) : null,
    hours,
    incidents: incidents?.length ?? null,
    per_100_h: incidents
      ? poissonRate(incidents.length, hours / 100, alpha)
      : unknownInterval('no incidents were recorded in this study'),
    downtime_share:
      incidents && downtimeHours + hours > 0 ? downtimeHours / (downtimeHours + hours) : null,
    hands_min_per_100_h: incidents && hours > 0 ? (100 * handsMinutes) / hours : null,
    metres: sumOf(prints, (print) => print.filament_m ?? 0),
    notes: notesOn(prints, incidents, allGood, hours),
  };
}

function notesOn(
  prints: readonly Print[],
  incidents: readonly Incident[] | null,
  allGood: boolean,
  hours: number,
): string[] {
  const unknown = <Item>(
    items: readonly Item[],
    isUnknown: (item: Item) => boolean,
    what: string,
  ) => {
    const count = items.filter(isUnknown).length;
    return count > 0 ? [`${what}: ${count}`] : [];
  };
  return [
    ...(prints.length === 0 ? ['no prints'] : []),
    ...(allGood || prints.length === 0 ? [] : ['not every print is a success: no upper bound']),
    ...unknown(prints, (print) => printHours(print) === null, 'prints without known hours'),
    ...unknown(
      prints,
      (print) => print.print_s !== null && print.heat_s === null,
      'prints without heating time, counted 0',
    ),
    ...unknown(
      prints,
      (print) => print.filament_m === null,
      'prints without filament length, counted 0',
    ),
    ...(incidents === null ? ['no incidents were recorded in this study'] : []),
    ...(incidents !== null && hours === 0 ? ['no hours: no rates'] : []),
    ...unknown(
      incidents ?? [],
      (incident) => incident.downtime_s === null,
      'incidents without downtime, counted 0',
    ),
    ...unknown(
      incidents ?? [],
      (incident) => incident.hands_s === null,
      'incidents without hands time, counted 0',
    ),
  ];
}

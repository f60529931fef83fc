import { firmwareTurns } from '../../model/ledger';
import { instant, inWords, type Study } from '../../model/study';

/** Something that happened to a machine. */
export interface DossierEntry {
  at: string;
  kind: 'print' | 'incident' | 'change';
  text: string;
  /** The print that it is about. */
  print_id: string | null;
  outcome: string | null;
}

/** What happened to the machine of a study's tables, the latest first. */
export function dossierEntries({ tables }: Pick<Study, 'tables'>): DossierEntry[] {
  const labels = new Map(tables.contenders.map((row) => [row.contender_id, row.label]));
  const names = new Map(tables.artefacts.map((row) => [row.artefact_id, row.name]));
  const entries: DossierEntry[] = [
    ...tables.prints.flatMap((row): DossierEntry[] =>
      row.started_at === null
        ? []
        : [
            {
              at: row.started_at,
              kind: 'print',
              print_id: row.print_id,
              text: `${names.get(row.artefact_id) ?? ''}, repeat ${row.repeat}, ${labels.get(row.contender_id) ?? ''}`,
              outcome: row.outcome,
            },
          ],
    ),
    ...tables.incidents.flatMap((row): DossierEntry[] =>
      row.at === null
        ? []
        : [
            {
              at: row.at,
              kind: 'incident',
              print_id: row.print_id,
              outcome: row.cause,
              text: [inWords(row.mode), row.note].filter(Boolean).join(': '),
            },
          ],
    ),
    ...tables.machine_changes.map((row): DossierEntry => ({
      at: row.at,
      kind: 'change',
      print_id: null,
      outcome: null,
      text: `${inWords(row.kind)}: ${row.what}`,
    })),
    ...firmwareTurns(tables.prints).map(({ at, firmware, before }): DossierEntry => ({
      at,
      kind: 'change',
      print_id: null,
      outcome: null,
      text: `firmware: prints name ${firmware} from here on, ${before} before`,
    })),
  ];
  return entries.sort((a, b) => instant(b.at) - instant(a.at));
}

/** No gap between two moments is drawn longer: weeks without a print are cut out. */
const LONGEST_GAP_MS = 2 * 86_400_000;

/** A stretch of time that is drawn shorter than it was. */
export interface TimeCut {
  /** Where it is drawn, 0…1. */
  at: number;
  days: number;
}

/**
 * A scale of time on which long gaps are cut short.
 *
 * @param moments milliseconds, in any order; at least one
 * @returns where a moment lies, 0…1, and where something was cut out
 */
export function timeScale(moments: readonly number[]): {
  place: (moment: number) => number;
  cuts: TimeCut[];
} {
  const sorted = [...new Set(moments)].sort((a, b) => a - b);
  const drawn: number[] = [0];
  for (let at = 1; at < sorted.length; at += 1) {
    const gap = (sorted[at] ?? 0) - (sorted[at - 1] ?? 0);
    drawn.push((drawn[at - 1] ?? 0) + Math.min(gap, LONGEST_GAP_MS));
  }
  const whole = drawn.at(-1) || 1;
  const place = (moment: number): number => {
    const after = sorted.findIndex((one) => one >= moment);
    if (after === 0) return 0;
    if (after < 0) return (drawn.at(-1) ?? 0) / whole;
    const [from, to] = [sorted[after - 1] ?? 0, sorted[after] ?? 0];
    const share = (moment - from) / (to - from);
    const [start, end] = [drawn[after - 1] ?? 0, drawn[after] ?? 0];
    return (start + share * (end - start)) / whole;
  };
  const cuts = sorted.slice(1).flatMap((moment, at): TimeCut[] => {
    const gap = moment - (sorted[at] ?? 0);
    if (gap <= LONGEST_GAP_MS) return [];
    const middle = ((drawn[at] ?? 0) + (drawn[at + 1] ?? 0)) / 2;
    return [{ at: middle / whole, days: Math.round(gap / 86_400_000) }];
  });
  return { place, cuts };
}

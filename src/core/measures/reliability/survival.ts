import { zQuantile } from '../../statistics/stats';
import { groupBy, instant, type Incident, type Print, type StudyIndex } from '../../model/study';
import { printHours } from './hours';

/** Share of gaps between incidents that last longer than a time. */
export interface SurvivalRow {
  t_h: number;
  at_risk: number;
  events: number;
  s: number;
  low: number | null;
  high: number | null;
}

/**
 * Survival between incidents that are not the operator's, of every machine.
 *
 * @see Kaplan and Meier, Nonparametric estimation from incomplete observations, 1958;
 *   interval by Greenwood's variance on the log scale
 */
export function survivalOfAll(index: StudyIndex, alpha: number): Record<string, SurvivalRow[]> {
  const { machines, prints, incidents } = index.study.tables;
  const printsOf = groupBy(
    prints,
    (print) => index.contenders.get(print.contender_id)?.machine_id ?? '',
  );
  const incidentsOf = groupBy(
    incidents.filter((row) => row.cause !== 'operator'),
    (row) => row.machine_id,
  );
  return Object.fromEntries(
    machines.map(({ machine_id }) => {
      const { places, end } = placeIncidents(
        printsOf.get(machine_id) ?? [],
        incidentsOf.get(machine_id) ?? [],
      );
      return [`machine:${machine_id}`, kaplanMeier(gapsOf(places, end), alpha)];
    }),
  );
}

const startOf = (print: Print): number =>
  print.started_at === null ? Infinity : instant(print.started_at);

/** The machine's hours at which incidents stand, each place once, and its hours in all. */
function placeIncidents(
  prints: readonly Print[],
  incidents: readonly Incident[],
): { places: number[]; end: number } {
  const ordered = [...prints].sort(
    (a, b) =>
      compare(startOf(a), startOf(b)) ||
      compare(a.order ?? Infinity, b.order ?? Infinity) ||
      (a.print_id < b.print_id ? -1 : 1),
  );
  const ends = new Map<string, number>();
  let clock = 0;
  for (const print of ordered) {
    clock += printHours(print) ?? 0;
    ends.set(print.print_id, clock);
  }
  const places = new Set<number>();
  for (const incident of incidents) {
    if (incident.print_id !== null) {
      const at = ends.get(incident.print_id);
      if (at !== undefined) places.add(at);
      continue;
    }
    const at = incident.at === null ? -Infinity : instant(incident.at);
    const before = ordered.filter((print) => startOf(print) < at).at(-1);
    places.add(before ? (ends.get(before.print_id) ?? 0) : 0);
  }
  return { places: [...places].sort((a, b) => a - b), end: clock };
}

interface Gap {
  hours: number;
  isCensored: boolean;
}

function gapsOf(places: readonly number[], end: number): Gap[] {
  const gaps: Gap[] = places.map((place, at) => ({
    hours: wholeNanohours(place - (places[at - 1] ?? 0)),
    isCensored: false,
  }));
  const last = end - (places.at(-1) ?? 0);
  if (last > 1e-12) gaps.push({ hours: wholeNanohours(last), isCensored: true });
  return gaps;
}

function kaplanMeier(gaps: readonly Gap[], alpha: number): SurvivalRow[] {
  const times = [...new Set(gaps.filter((gap) => !gap.isCensored).map((gap) => gap.hours))];
  times.sort((a, b) => a - b);
  const z = zQuantile(1 - alpha / 2);
  let s = 1;
  let greenwood = 0;
  return times.map((t_h): SurvivalRow => {
    const at_risk = gaps.filter((gap) => gap.hours >= t_h).length;
    const events = gaps.filter((gap) => !gap.isCensored && gap.hours === t_h).length;
    s *= 1 - events / at_risk;
    if (events === at_risk) return { t_h, at_risk, events, s: 0, low: null, high: null };
    greenwood += events / (at_risk * (at_risk - events));
    const factor = Math.exp(z * Math.sqrt(greenwood));
    return { t_h, at_risk, events, s, low: s / factor, high: Math.min(1, s * factor) };
  });
}

const compare = (a: number, b: number): number => (a === b ? 0 : a < b ? -1 : 1);

/** Gaps that are equal but for the rounding of their sums are one gap. */
const wholeNanohours = (hours: number): number => Math.round(hours * 1e9) / 1e9;

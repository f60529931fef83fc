import { printFacts, type Fact, type PrintFacts } from '../fairness';
import { laddersOfAll } from '../../measures/ladders';
import { measure, printValues, specimenErrors, type Measurements } from '../../measures/metrology';
import { logPrintTimes } from '../../measures/speed';
import {
  clopperPearson,
  mapInterval,
  oneSideInterval,
  unknownInterval,
  type Interval,
  type PrintValues,
} from '../../statistics/stats';
import {
  indexStudy,
  partsOfStratum,
  type Print,
  type Study,
  type StudyIndex,
} from '../../model/study';
import { surfaceInterval, surfaceValues } from '../../measures/surface';

/** What a row can fail to share with the first row. */
export const SHARED = [
  'material_type',
  'material_lot',
  'nozzle_mm',
  'layer_height_mm',
  'instrument',
  'operator',
  'dimensions',
] as const;

export type SharedName = (typeof SHARED)[number];

/** One contender of one study on one artefact. */
export interface StandingRow {
  /** Name of the study. */
  study: string;
  /** Id of the contender in that study. */
  contender: string;
  /** Attempts. */
  prints: number;
  /** Mean absolute deviation, mm, one-side rule. */
  mae_mm: Interval;
  /** Mean deviation, mm; positive is too large. */
  bias_mm: Interval;
  /** Printing time of finished prints, s, by geometric mean. */
  print_s: Interval;
  /** Share of successes over all its prints, Clopper–Pearson. */
  success: Interval;
  /** Surface index, 0–100. */
  surface: Interval;
  /** Hardest step passed without effort, by ladder, in the ladder's unit. */
  limits: Record<string, number | null>;
  /** Types of material. */
  materials: string[];
  /** Firmware of the prints, else of the machine. */
  firmware: string[];
  /** First and last start, as written; null where no start is known. */
  from: string | null;
  to: string | null;
  /** Whether its interval holds the first row's estimate; null without an interval. */
  near_best: boolean | null;
  /** What it does not share with the first row. */
  differs: SharedName[];
}

/** What was known of a row's prints, to tell what two rows share. */
export type KnownOfPrints = Record<SharedName, ReadonlySet<string | number>>;

/** A row before it is compared with the first, with the values of its prints. */
export interface OpenRow extends Omit<StandingRow, 'near_best' | 'differs'> {
  known: KnownOfPrints;
  /** The values of its prints behind each figure, for strips. */
  dots: { mae_mm: number[]; print_s: number[]; surface: number[] };
}

/** Prepares rows of a study's contenders: its readings and inspections are gone through once. */
export function rowsOfStudy(
  study: Study,
  alpha: number,
): (artefacts: ReadonlySet<string>) => OpenRow[] {
  const index = indexStudy(study);
  const measurements = measure(index);
  const surfaces = surfaceValues(index);
  const ladders = laddersOfAll(index);
  const facts = printFacts(index);

  /** What is known of some prints by an item of the fairness check. */
  const knownOf = knownOfStudy({ facts, index, study, measurements });

  return (artefacts) =>
    study.tables.contenders.flatMap(({ contender_id }) => {
      const isOwn = (id: string) => artefacts.has(id);
      const prints = (index.printsOfContender.get(contender_id) ?? []).filter((print) =>
        isOwn(print.artefact_id),
      );
      if (prints.length === 0) return [];
      const cells = measurements.cellsOfContender.get(contender_id) ?? [];
      const errors = specimenErrors(cells.filter((cell) => isOwn(cell.print.artefact_id)));
      const [maes, biases] = [printValues(errors, 'mae_mm'), printValues(errors, 'bias_mm')];
      const times = only(logPrintTimes(index, contender_id), isOwn);
      const surface = only(surfaces(contender_id), isOwn);
      const starts = prints.flatMap((print) => print.started_at ?? []).sort(byTime);
      const good = prints.filter((print) => print.outcome === 'success').length;
      return [
        {
          study: study.meta.name,
          contender: contender_id,
          prints: prints.length,
          mae_mm: interval(maes, alpha, 'no readings'),
          bias_mm: interval(biases, alpha, 'no readings'),
          print_s: mapInterval(
            interval(times, alpha, 'no finished print whose printing time is known'),
            Math.exp,
          ),
          success: clopperPearson(good, prints.length, alpha),
          surface: surfaceInterval(surface, alpha),
          limits: Object.fromEntries(
            Object.entries(ladders[contender_id] ?? {}).flatMap(([key, { limit }]) => {
              const [artefact = '', ladder = ''] = key.split('/');
              return isOwn(artefact) ? [[ladder, limit]] : [];
            }),
          ),
          materials: sorted(prints.map((print) => index.typeOf(print))),
          firmware: sorted(
            prints.flatMap((print) => facts.circumstance(print, 'firmware') ?? []).map(String),
          ),
          from: starts.at(0) ?? null,
          to: starts.at(-1) ?? null,
          known: knownOf(prints),
          dots: {
            mae_mm: [...maes.values()].flat(),
            print_s: [...times.values()].flat().map(Math.exp),
            surface: [...surface.values()].flat(),
          },
        },
      ];
    });
}

interface KnownOfStudyGiven {
  facts: PrintFacts;
  index: StudyIndex;
  study: Study;
  measurements: Measurements;
}

/** What is known of some prints of a study: by it the standings say what differs. */
function knownOfStudy({ facts, index, study, measurements }: KnownOfStudyGiven) {
  const known = (prints: readonly Print[], item: string): Set<string | number> =>
    new Set(prints.flatMap((print) => plain(facts.circumstance(print, item))));

  const knownOf = (prints: readonly Print[]): KnownOfPrints => {
    const readers = prints.flatMap((print) => index.specimensOfPrint.get(print.print_id) ?? []);
    const parts = new Set(readers.map((part) => part.specimen_id));
    const instruments = study.tables.readings.flatMap((row) =>
      row.superseded_at === null && parts.has(row.specimen_id) && row.instrument_id !== null
        ? (index.instruments.get(row.instrument_id)?.name ?? row.instrument_id)
        : [],
    );
    return {
      material_type: known(prints, 'material_type'),
      material_lot: known(prints, 'material_lot'),
      nozzle_mm: known(prints, 'nozzle_mm'),
      layer_height_mm: new Set(
        prints.flatMap((print) => plain(facts.settings(print).layer_height_mm ?? null)),
      ),
      instrument: new Set(instruments),
      operator: known(prints, 'operator'),
      dimensions: readOn(prints),
    };
  };

  /** The dimensions that were read on some prints, each with its nominal size. */
  const readOn = (prints: readonly Print[]): Set<string> => {
    const own = new Set(prints);
    const cells = measurements.cells.filter((cell) => own.has(cell.print));
    return new Set(
      cells.map(({ dimension }) => `${dimension.dimension_id} ${dimension.nominal_mm}`),
    );
  };
  return knownOf;
}

const interval = (values: PrintValues, alpha: number, why: string): Interval =>
  values.size === 0 ? unknownInterval(why) : oneSideInterval(values, alpha);

const only = (values: PrintValues, isOwn: (artefact: string) => boolean): PrintValues =>
  new Map([...values].filter(([stratum]) => isOwn(partsOfStratum(stratum).artefact_id)));

const sorted = (values: readonly string[]): string[] => [...new Set(values)].sort();

const byTime = (a: string, b: string): number => Date.parse(a) - Date.parse(b);

/** A fact as it is compared, in a list; none where it is not known. */
const plain = (fact: Fact): (string | number)[] =>
  fact === null ? [] : [typeof fact === 'number' ? fact : String(fact)];

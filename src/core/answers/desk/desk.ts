/** A print that is still to be made. */
export interface DuePrint {
  contender_id: string;
  artefact_id: string;
  repeat: number;
}

/** A loaned machine and the day on which it goes back, `2026-12-09`. */
export interface Loan {
  /** The machine's lasting id. */
  machine: string;
  name: string;
  returnBy: string;
}

/** What the desk needs to know of a study. */
export interface DeskStudy {
  study_id: string;
  /** The prints still to be made, in the order of the plan. */
  due: readonly DuePrint[];
  /** The lasting id of each contender's machine. */
  machineOf: Readonly<Record<string, string>>;
  /** Readings and zones that are still missing from printed parts. */
  readingsLeft: number;
  zonesLeft: number;
  /** Photos that belong to no specimen yet. */
  photosLeft: number;
  /** Finished prints whose mass, time or parts are missing. */
  incomplete: number;
  loans: readonly Loan[];
}

/** Something to do at the bench. */
export type DeskTask =
  | { kind: 'return'; study_id: string; loan: Loan; days: number; prints: number }
  | { kind: 'start'; study_id: string; print: DuePrint }
  | { kind: 'complete' | 'measure' | 'inspect' | 'file'; study_id: string; count: number };

/** A loan that ends within so many days comes first. */
const SOON_DAYS = 14;
const DAY_MS = 86_400_000;

/**
 * What to do at the bench, in order: loans that end within two weeks; for each free machine the next
 * print of the plans; then, study by study, what is missing from what has been printed; later loans.
 *
 * @param studies the one changed last first
 * @param busy the lasting ids of the machines that are printing
 * @param today the day, `2026-12-01`
 */
export function deskTasks(
  studies: readonly DeskStudy[],
  busy: ReadonlySet<string>,
  today: string,
): DeskTask[] {
  const loans = loanTasks(studies, today);
  return [
    ...loans.filter(({ days }) => days <= SOON_DAYS),
    ...startTasks(studies, busy),
    ...studies.flatMap((study): DeskTask[] => {
      const { study_id } = study;
      const open = [
        { kind: 'complete', count: study.incomplete },
        { kind: 'measure', count: study.readingsLeft },
        { kind: 'inspect', count: study.zonesLeft },
        { kind: 'file', count: study.photosLeft },
      ] as const;
      return open.flatMap((one) => (one.count > 0 ? [{ ...one, study_id }] : []));
    }),
    ...loans.filter(({ days }) => days > SOON_DAYS),
  ];
}

/** The first due print of each machine that is free. */
function startTasks(studies: readonly DeskStudy[], busy: ReadonlySet<string>): DeskTask[] {
  const taken = new Set(busy);
  return studies.flatMap(({ study_id, due, machineOf }) =>
    due.flatMap((print): DeskTask[] => {
      const machine = machineOf[print.contender_id];
      if (machine === undefined || taken.has(machine)) return [];
      taken.add(machine);
      return [{ kind: 'start', study_id, print }];
    }),
  );
}

/** Each loaned machine once, with the prints that are still to be made on it, the first to go back first. */
function loanTasks(studies: readonly DeskStudy[], today: string) {
  const seen = new Map<string, { study_id: string; loan: Loan }>();
  for (const { study_id, loans } of studies) {
    for (const loan of loans)
      if (!seen.has(loan.machine)) seen.set(loan.machine, { study_id, loan });
  }
  const dueOn = (machine: string): number =>
    studies
      .flatMap(({ due, machineOf }) => due.map((print) => machineOf[print.contender_id]))
      .filter((one) => one === machine).length;
  return [...seen.values()]
    .map(({ study_id, loan }) => ({
      kind: 'return' as const,
      study_id,
      loan,
      days: Math.round((Date.parse(loan.returnBy.slice(0, 10)) - Date.parse(today)) / DAY_MS),
      prints: dueOn(loan.machine),
    }))
    .sort((a, b) => a.days - b.days);
}

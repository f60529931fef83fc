/** What a smallest difference could be, with what it is taken from. */
export type DifferenceProposal =
  | { field: 'accuracy_mm'; value: number; from: 'repeatability'; instrument: string }
  | { field: 'accuracy_mm'; value: number; from: 'resolution'; instrument: string; step_mm: number }
  | { field: 'accuracy_mm'; value: number; from: 'tolerance'; dimension: string; width_mm: number }
  | { field: 'time_pct'; value: number; from: 'print time'; print_s: number };

/** What proposals are made from. Lengths in mm, times in s; null where nothing is known. */
export interface DifferenceFacts {
  instruments: readonly {
    name: string;
    repeatability_mm: number | null;
    resolution_mm: number | null;
  }[];
  dimensions: readonly { name: string; lower_tol_mm: number | null; upper_tol_mm: number | null }[];
  /** The median print. */
  print_s: number | null;
}

/** Two readings of one thing differ by less than 2.8 standard deviations in 95 % of cases (ISO 5725-6). */
const LIMIT = 2.8;
/** Two readings differ where they are at least two steps of the instrument apart. */
const STEPS = 2;
/** What is left of a tolerance for a difference between machines. */
const SHARE_OF_TOLERANCE = 1 / 5;
const TIME_PCT = 5;

/** Up to the next hundredth of a millimetre, as calipers show them. */
const toHundredths = (mm: number): number => Math.max(1, Math.ceil(mm * 100 - 1e-9)) / 100;

/**
 * Values for the smallest difference that matters: what the instruments can tell apart, a fifth of the
 * tightest tolerance, 5 % of the print time.
 *
 * @source ISO 5725-6: repeatability limit r = 2.8 s_r
 * @example
 * proposedDifferences({
 *   instruments: [{ name: 'Caliper', repeatability_mm: 0.007, resolution_mm: 0.01 }],
 *   dimensions: [],
 *   print_s: null,
 * })[0].value // 0.02
 */
export function proposedDifferences(facts: DifferenceFacts): DifferenceProposal[] {
  const instruments = facts.instruments.flatMap((one): DifferenceProposal[] => {
    const { name: instrument, repeatability_mm, resolution_mm } = one;
    const field = 'accuracy_mm';
    if (repeatability_mm !== null) {
      const value = toHundredths(LIMIT * repeatability_mm);
      return [{ field, value, from: 'repeatability', instrument }];
    }
    if (resolution_mm === null) return [];
    const value = toHundredths(STEPS * resolution_mm);
    return [{ field, value, from: 'resolution', instrument, step_mm: resolution_mm }];
  });
  const widths = facts.dimensions.flatMap(({ name, lower_tol_mm, upper_tol_mm }) =>
    lower_tol_mm === null || upper_tol_mm === null || upper_tol_mm <= lower_tol_mm
      ? []
      : [{ name, width_mm: upper_tol_mm - lower_tol_mm }],
  );
  const [tightest] = widths.sort((a, b) => a.width_mm - b.width_mm);
  return [
    ...instruments,
    ...(tightest
      ? [
          {
            field: 'accuracy_mm' as const,
            value: toHundredths(tightest.width_mm * SHARE_OF_TOLERANCE),
            from: 'tolerance' as const,
            dimension: tightest.name,
            width_mm: tightest.width_mm,
          },
        ]
      : []),
    ...(facts.print_s === null
      ? []
      : [
          {
            field: 'time_pct' as const,
            value: TIME_PCT,
            from: 'print time' as const,
            print_s: facts.print_s,
          },
        ]),
  ];
}

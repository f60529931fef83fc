/** What a figure was computed from, ready to be shown: its formula, its rows, its caveats. */
export interface Evidence {
  title: string;
  /** The figure in one sentence. */
  sentence: string;
  /** How it is computed, in plain words and symbols. */
  formula: string;
  tables: EvidenceTable[];
  notes: string[];
}

export interface EvidenceColumn {
  label: string;
  isFigure?: boolean;
  /** Whether a cell can hold several values, and then runs over more than one line. */
  isList?: boolean;
}

export interface EvidenceTable {
  title: string;
  columns: EvidenceColumn[];
  rows: (string | number | null)[][];
  /** How many rows are left out here. */
  more: number;
}

/** Most rows that one table of evidence shows; the rest is in the export. */
const MOST_ROWS = 400;

/** A table of evidence, cut to what can be looked through. */
export function evidenceTable(
  title: string,
  columns: readonly (string | readonly [string] | EvidenceColumn)[],
  rows: readonly (string | number | null)[][],
): EvidenceTable {
  return {
    title,
    columns: columns.map((column) =>
      typeof column === 'string'
        ? { label: column }
        : 'label' in column
          ? column
          : { label: column[0], isFigure: true },
    ),
    rows: rows.slice(0, MOST_ROWS),
    more: Math.max(0, rows.length - MOST_ROWS),
  };
}

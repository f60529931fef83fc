import type { Stored } from '../../../contract/rows';
import type { AnyPrint, RunCell } from './runs-model';

/** What the drawer of the bench shows. */
export type Opened =
  | { kind: 'start'; cell: RunCell }
  | { kind: 'print'; print: AnyPrint }
  | { kind: 'end'; print: AnyPrint }
  | { kind: 'incident'; print: AnyPrint }
  | { kind: 'edit-incident'; incident: Stored<'incidents'> };

/** What the address asks for: a print by its id, or a place of the plan. */
export function askedFor(asked: string | null, cells: readonly RunCell[]): Opened | null {
  if (asked === null) return null;
  const cell = cells.find(
    (one) =>
      one.print?.print_id === asked ||
      `${one.contender}/${one.artefact}/${one.repeat}`.toLowerCase() === asked.toLowerCase(),
  );
  if (!cell) return null;
  if (cell.print === null) return { kind: 'start', cell };
  return { kind: cell.state === 'open' ? 'end' : 'print', print: cell.print };
}

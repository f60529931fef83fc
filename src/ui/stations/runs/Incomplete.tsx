import type { IncompletePrint } from '../../../contract/runs';
import { counted } from '../../lib/format';

interface IncompleteProps {
  prints: readonly IncompletePrint[];
  titleOf: (printId: string) => string;
  onOpen: (printId: string) => void;
}

const SHOWN = 6;

const lacking = (print: IncompletePrint): string =>
  [print.no_mass && 'mass', print.no_time && 'time', print.no_parts && 'parts']
    .filter(Boolean)
    .join(', ');

/** Finished prints of which something is missing that only a person knows: each opens its form. */
export function Incomplete({ prints, titleOf, onOpen }: IncompleteProps) {
  if (prints.length === 0) return null;
  const count = (is: (print: IncompletePrint) => boolean) => prints.filter(is).length;
  const parts = [
    [count((one) => one.no_mass), 'without mass'],
    [count((one) => one.no_time), 'without time'],
    [count((one) => one.no_parts), 'without parts'],
  ] as const;
  const byLink = count((one) => one.by_link);
  return (
    <section className="mt-3 sheet p-3 text-xs" aria-labelledby="incomplete">
      <h2 id="incomplete" className="text-base font-semibold">
        To complete
      </h2>
      <p className="text-ink-2">
        {counted(prints.length, 'finished print')}
        {byLink > 0 && ` (${byLink} ended by the bench link)`}:{' '}
        {parts
          .filter(([n]) => n > 0)
          .map(([n, words]) => `${n} ${words}`)
          .join(', ')}
        .
      </p>
      <ul>
        {prints.slice(0, SHOWN).map((print) => (
          <li key={print.print_id}>
            <button
              type="button"
              className="text-left underline"
              onClick={() => onOpen(print.print_id)}
            >
              {titleOf(print.print_id)}
            </button>{' '}
            <span className="text-ink-2">lacks {lacking(print)}</span>
          </li>
        ))}
      </ul>
      {prints.length > SHOWN && (
        <p className="text-ink-2">and {prints.length - SHOWN} more: open them in the matrix.</p>
      )}
    </section>
  );
}

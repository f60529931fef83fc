import type { ListedInstrument } from '../../contract/workshop';
import { fixed } from '../lib/format';
import { Unknown } from '../marks/Unknown';

/** What an instrument repeated, from the study begun first to the last one, on one line. */
export function Repeats({ uses }: Pick<ListedInstrument, 'uses'>) {
  const known = uses
    .flatMap(({ title, repeatability_mm: value }) => (value === null ? [] : [{ title, value }]))
    .reverse();
  const values = known.map(({ value }) => value);
  if (values.length === 0) return <Unknown why="nothing was read twice with it" />;
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const label = known.map(({ title, value }) => `${fixed(value, 4)} in ${title}`).join('; ');
  const x = (at: number) => (known.length === 1 ? 60 : 6 + (108 * at) / (known.length - 1));
  return (
    <span className="flex items-center gap-3">
      <svg width={120} height={28} role="img" aria-label={label} data-hint={label}>
        <line x1={0} x2={120} y1={26} y2={26} stroke="var(--line)" />
        {known.map(({ value }, at) => (
          <circle key={at} cx={x(at)} cy={26 - (20 * value) / most} r={2.5} fill="var(--ink)" />
        ))}
      </svg>
      <span className="whitespace-nowrap">
        <span className="font-mono">
          {least === most ? fixed(most, 4) : `${fixed(least, 4)} … ${fixed(most, 4)}`}
        </span>
        <span className="block text-2xs text-ink-2">
          {known.length === 1 ? 'in one study' : `in ${known.length} studies`}
        </span>
      </span>
    </span>
  );
}

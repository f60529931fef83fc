import type { PairRow } from '../../core/statistics/compare';
import { describeVerdict } from '../../core/text/phrasing';

interface VerdictChipProps {
  row: PairRow | undefined;
  name: string;
  unit: 'mm' | 'time' | 'points';
  figure: string;
}

/** A verdict as a word and a figure; opens its evidence. */
export function VerdictChip({ row, name, unit, figure }: VerdictChipProps) {
  if (!row) return <span className="text-ink-2">nothing in common with the reference</span>;
  const isDecided = row.verdict === 'better' || row.verdict === 'worse';
  const tone = isDecided
    ? 'border-plum-line bg-plum-soft text-plum'
    : 'border-line bg-desk text-ink-2';
  const said = isDecided ? `${name} ${describeVerdict(row, unit)}` : describeVerdict(row, unit);
  return (
    <button
      type="button"
      data-figure={figure}
      className={`min-h-[24px] rounded-full border px-2 py-0.5 text-xs whitespace-nowrap ${tone}`}
    >
      {said}
    </button>
  );
}

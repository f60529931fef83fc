import type { Criterion, CriterionEvidence } from '../../core/answers/scorecard';
import type { ContenderMark } from '../../core/model/study';
import type { FigureWords } from '../../core/answers/figure-names';
import { fillOf } from './colours';
import { CurveEditor } from './CurveEditor';
import { VernierSlider } from './VernierSlider';

interface CriterionRowProps {
  criterion: Criterion;
  place: number;
  /** Weight as a share of all. */
  share: number;
  words: FigureWords;
  marks: readonly ContenderMark[];
  evidence: Readonly<Record<string, CriterionEvidence>>;
  onChange: (criterion: Criterion, mark: string) => void;
  onRemove: () => void;
}

/** One criterion of a card: how much it counts, and what its values are worth. */
export function CriterionRow(props: CriterionRowProps) {
  const { criterion, place, share, words, marks, evidence, onChange, onRemove } = props;
  const { key, weight, points } = criterion;
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_160px] gap-x-3 gap-y-1 border-b border-line-soft px-3 py-2 sm:grid-cols-[minmax(0,150px)_minmax(110px,1fr)_190px]">
      <div className="min-w-0">
        <p className="flex items-baseline gap-1.5">
          <svg width={10} height={10} aria-hidden="true" className="shrink-0">
            <rect width={10} height={10} {...fillOf(place)} />
          </svg>
          <span className="min-w-0 leading-tight font-medium">{words.label}</span>
        </p>
        <p className="text-xs text-ink-2">
          {words.group}
          {Object.keys(evidence).length < marks.length && (
            <> · known of {marks.filter((mark) => evidence[mark.contender_id]).length}</>
          )}
        </p>
        <button
          type="button"
          className="min-h-[24px] text-2xs text-ink-2 underline decoration-line hover:text-plum"
          aria-label={`Remove: ${words.label}`}
          onClick={onRemove}
        >
          Remove
        </button>
      </div>
      <div className="order-3 col-span-full sm:order-none sm:col-span-1">
        <p className="text-right font-mono text-sm">{(100 * share).toFixed(0)} %</p>
        <VernierSlider
          label={`Weight of ${words.label}`}
          value={weight}
          max={Math.max(100, weight)}
          onChange={(next) => onChange({ ...criterion, weight: next }, `weight ${key}`)}
        />
      </div>
      <CurveEditor
        points={points}
        words={words}
        marks={marks}
        evidence={evidence}
        onChange={(next) => onChange({ ...criterion, points: next }, `curve ${key}`)}
      />
    </li>
  );
}

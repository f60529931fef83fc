import type { PairRow } from '../../core/statistics/compare';
import type { FairnessSummary } from '../../core/answers/results';
import type { ContenderMark } from '../../core/model/study';
import { FairnessMark } from '../fairness/FairnessMark';
import { VerdictChip } from '../marks/VerdictChip';

/** What every verdict of a page rests on. */
export interface VerdictContext {
  studyId: string;
  pairs: readonly PairRow[];
  fairness: readonly FairnessSummary[];
  reference: string | null;
}

interface PairVerdictProps extends VerdictContext {
  mark: ContenderMark;
  unit: 'mm' | 'time' | 'points';
  /** The figure whose evidence it opens. */
  figure: string;
}

/** A contender's verdict against the reference, with the fairness of the comparison beside it. */
export function PairVerdict(props: PairVerdictProps) {
  const { mark, studyId, pairs, fairness, reference, unit, figure } = props;
  if (mark.contender_id === reference) return <span className="text-ink-2">reference</span>;
  const row = pairs.find((one) => one.contender === mark.contender_id);
  return (
    <span className="inline-flex flex-wrap items-center">
      <VerdictChip
        row={row}
        name={`${mark.letter}${mark.isTuned ? ' tuned' : ''}`}
        unit={unit}
        figure={figure}
      />
      {row && (
        <FairnessMark
          studyId={studyId}
          contender={mark.contender_id}
          fairness={fairness}
          on={row.on}
        />
      )}
    </span>
  );
}

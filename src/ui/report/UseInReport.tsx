import { isReportable } from '../../core/answers/figure-address/criteria';
import { usePicked } from './picked';

interface UseInReportProps {
  studyId: string;
  /** Where the figure stands in the results. */
  address: string;
  title: string;
}

/** Picks a figure for the report; nothing where a report has no such figure. */
export function UseInReport({ studyId, address, title }: UseInReportProps) {
  const { picked, pick, drop } = usePicked(studyId);
  if (!isReportable(address)) return null;
  const isPicked = picked.some((one) => one.address === address);
  return (
    <button
      type="button"
      className="action"
      aria-pressed={isPicked}
      onClick={() => (isPicked ? drop(address) : pick({ address, title }))}
    >
      {isPicked ? 'Picked for the report' : 'Use in report'}
    </button>
  );
}

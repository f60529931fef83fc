import { addressOnPage } from '../../core/report/named';
import { usePicked } from './picked';

interface UseInReportProps {
  studyId: string;
  /** The figure as its page knows it: `kind/contender/part`. */
  figure: string;
  title: string;
}

/** Picks a figure for the report; nothing where a report has no such figure. */
export function UseInReport({ studyId, figure, title }: UseInReportProps) {
  const { picked, pick, drop } = usePicked(studyId);
  const address = addressOnPage(figure);
  if (address === null) return null;
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

import type { ProposedFinding } from '../../core/measures/dossier/claims';
import { readAgain } from '../kit/leave';
import { callApi } from '../kit/request';
import { useTrying } from '../kit/use-trying';

interface TakeFindingProps {
  studyId: string;
  claimId: string;
  version: number;
  statement: string;
  proposed: ProposedFinding;
}

/** What figures say of a claim, taken over as its finding where nobody has found anything else. */
export function TakeFinding({ studyId, claimId, version, statement, proposed }: TakeFindingProps) {
  const { message, attempt } = useTrying();
  const take = () =>
    attempt(async () => {
      await callApi('PATCH', `/studies/${studyId}/rows/claims/${encodeURIComponent(claimId)}`, {
        version,
        change: { finding: proposed.finding, evidence: proposed.evidence },
      });
      void readAgain();
    });
  return (
    <span className="mt-0.5 flex flex-wrap items-center gap-2 text-2xs text-plum">
      figures say: {proposed.finding}, {proposed.evidence}
      <button
        type="button"
        className="action"
        aria-label={`Take over as the finding on “${statement}”`}
        onClick={() => void take()}
      >
        Take over
      </button>
      {message && (
        <span role="alert" className="text-warn">
          {message}
        </span>
      )}
    </span>
  );
}

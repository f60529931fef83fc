import { provenBy } from '../../core/measures/dossier/claims';
import type { MachineDossier } from '../../contract/workshop';
import { Sheet } from './Sheet';
import { TakeFinding } from './TakeFinding';

/** What the maker promises, what would prove it, and what was found; a person's word stands before a figure's. */
export function ClaimSheet({ claims }: Pick<MachineDossier, 'claims'>) {
  return (
    <Sheet
      title="Claims"
      isEmpty={claims.length === 0}
      empty="No claim of the maker is written down."
    >
      <table className="w-full">
        <thead>
          <tr className="border-b border-line">
            <th className="th">claim</th>
            <th className="th">found</th>
          </tr>
        </thead>
        <tbody>
          {claims.map(({ claim, proposed, study_id, row_version }) => {
            const proof = provenBy(claim);
            return (
              <tr
                key={`${study_id} ${claim.claim_id}`}
                className="border-b border-line-soft align-top"
              >
                <th scope="row" className="px-2 py-1 text-left font-normal">
                  “{claim.statement}”
                  {proof && <span className="block text-2xs text-ink-2">proved by {proof}</span>}
                </th>
                <td className="px-2 py-1">
                  {claim.finding && claim.finding !== 'untested' ? (
                    <>
                      <b>{claim.finding}</b> <span className="text-ink-2">{claim.evidence}</span>
                    </>
                  ) : (
                    <span className="inline-block unknown px-1 text-ink-2">untested</span>
                  )}
                  {proposed && proposed.finding !== claim.finding && (
                    <TakeFinding
                      studyId={study_id}
                      claimId={claim.claim_id}
                      version={row_version}
                      statement={claim.statement}
                      proposed={proposed}
                    />
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Sheet>
  );
}

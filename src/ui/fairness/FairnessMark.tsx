import type { FairnessResult } from '../../core/answers/fairness';
import { foundOn, worstFound } from '../../core/answers/fairness/of-figure';
import { itemWords } from '../../core/answers/fairness/sentence';
import type { FairnessSummary } from '../../core/answers/results';

const SIGNS: Record<FairnessResult, string> = { clean: '=', noted: '≈', confounded: '≠' };

/** How fair a comparison is, as a sign and its word. */
export function FairnessSign({ result, title }: { result: FairnessResult; title?: string }) {
  const tone =
    result === 'confounded'
      ? 'border-warn bg-warn-soft text-warn font-medium'
      : 'border-line bg-sheet text-ink-2';
  return (
    <span
      className={`inline-flex items-center gap-1 rounded-sm border px-1 text-2xs whitespace-nowrap ${tone}`}
      data-hint={title}
    >
      <span className="font-mono" aria-hidden="true">
        {SIGNS[result]}
      </span>
      {result}
    </span>
  );
}

interface FairnessMarkProps {
  studyId: string;
  contender: string;
  fairness: readonly FairnessSummary[];
  /** What the verdict rests on; only what was found there is marked. Empty: everything. */
  on: readonly string[];
}

/** The worst that the fairness check found of a pair, beside its verdict, and what was accepted. */
export function FairnessMark({ studyId, contender, fairness, on }: FairnessMarkProps) {
  const own = foundOn(fairness, contender, on);
  const worst = worstFound(own);
  if (!worst) return null;
  const count = own.filter((row) => row.result === worst.result).length;
  const accepted = own.flatMap((row) => row.accepted);
  return (
    <span className="ml-1.5 inline-flex flex-col items-start align-middle">
      <a
        className="inline-flex min-h-[24px] items-center no-underline"
        href={`/studies/${studyId}/line-up#fair-${contender}`}
        aria-label={`Fairness: ${worst.result} on ${count} of ${own.length} artefacts and materials`}
      >
        <FairnessSign
          result={worst.result}
          title={`${worst.artefact_id}${worst.type == null ? '' : ` in ${worst.type}`}: ${worst.sentence}`}
        />
      </a>
      {accepted.map((one) => (
        <span key={`${one.item} ${one.reason}`} className="max-w-[28ch] text-2xs text-ink-2">
          {itemWords(one.item)} accepted: {one.reason}
        </span>
      ))}
    </span>
  );
}

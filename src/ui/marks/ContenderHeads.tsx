import type { ContenderMark } from '../../core/model/study';
import { Badge } from './Badge';

interface ContenderHeadsProps {
  /** What the first column names. */
  first?: string;
  marks: readonly ContenderMark[];
  reference?: string | null;
  /** Whether the columns hold figures, and stand to the right. */
  isFigure?: boolean;
  hasNames?: boolean;
}

/** The head of a table with a column for each contender. */
export function ContenderHeads(props: ContenderHeadsProps) {
  const { first = 'artefact', marks, reference = null, isFigure = false, hasNames = false } = props;
  return (
    <thead>
      <tr className="border-b border-line">
        <th className="th">{first}</th>
        {marks.map((mark) => (
          <th key={mark.contender_id} className={`th ${isFigure ? 'text-right' : ''}`}>
            <span className="inline-flex items-center gap-1.5">
              <Badge mark={mark} isReference={mark.contender_id === reference} />
              {hasNames && mark.machineName}
            </span>
          </th>
        ))}
      </tr>
    </thead>
  );
}

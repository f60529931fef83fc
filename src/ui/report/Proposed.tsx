import { useState } from 'react';
import type { ContenderMark } from '../../core/model/study';
import type { SeenSentence } from '../../contract/report';
import { useOnce } from '../kit/use-once';
import { Badge } from '../marks/Badge';
import type { Report } from './use-report';

const MOST_PROPOSED = 4;

interface ProposedProps {
  report: Report;
  marks: readonly ContenderMark[];
  kind: SeenSentence['kind'];
}

/** Sentences that the results suggest: kept, edited or thrown away. */
export function Proposed({ report, marks, kind }: ProposedProps) {
  const [isAll, setAll] = useState(false);
  const once = useOnce();
  const [edited, setEdited] = useState<{ key: string; text: string } | null>(null);
  const own = report.page.proposals.filter((one) => one.kind === kind);
  if (own.length === 0) return null;
  const shown = isAll ? own : own.slice(0, MOST_PROPOSED);
  return (
    <div className="mt-1">
      <p className="text-xs text-ink-2">Proposed by the results</p>
      <ul>
        {shown.map((one) => {
          const mark = marks.find((own) => own.contender_id === one.contender);
          const text = edited?.key === one.key ? edited.text : null;
          const accept = () =>
            report
              .write({
                kind,
                contender_id: one.contender,
                text: text ?? one.text,
                rests_on: one.rests_on,
              })
              // What was typed stays where it is refused.
              .then((isKept) => isKept && setEdited(null));
          return (
            <li
              key={one.key}
              className="flex flex-wrap items-start gap-2 border-t border-dashed border-line py-1"
            >
              {mark && <Badge mark={mark} />}
              {text === null ? (
                <span className="min-w-0 flex-1 basis-64" data-hint={one.said.join('; ')}>
                  {one.text}
                </span>
              ) : (
                <textarea
                  className="field min-w-0 flex-1 basis-64"
                  aria-label="Proposed sentence"
                  autoFocus
                  rows={2}
                  value={text}
                  onChange={(event) => setEdited({ key: one.key, text: event.target.value })}
                />
              )}
              <span className="flex gap-1">
                <button type="button" className="action" onClick={() => once(one.key, accept)}>
                  Accept
                </button>
                {text === null && (
                  <button
                    type="button"
                    className="action"
                    onClick={() => setEdited({ key: one.key, text: one.text })}
                  >
                    Edit
                  </button>
                )}
                <button
                  type="button"
                  className="action"
                  onClick={() => void report.throwAway(one.key)}
                >
                  Dismiss
                </button>
              </span>
            </li>
          );
        })}
      </ul>
      {own.length > MOST_PROPOSED && (
        <button type="button" className="text-xs underline" onClick={() => setAll(!isAll)}>
          {isAll ? 'fewer' : `${own.length - MOST_PROPOSED} more proposed`}
        </button>
      )}
    </div>
  );
}

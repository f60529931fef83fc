import { useState } from 'react';
import { useStudyNews } from '../lib/live';

interface ChangedSinceProps {
  studyId: string;
  /** Whether the page shows results: what is said then is that there is new evidence. */
  isOfResults: boolean;
}

/** How the report is made, and cards, are no evidence. */
const NO_EVIDENCE: ReadonlySet<string> = new Set(['report', 'cards']);
/** What a sliced file holds is read by the server after it has come: nobody changed anything. */
const READ_BY_ITSELF: ReadonlySet<string> = new Set(['sliced_files']);

/**
 * Says that somebody changed the study while the page is open. The page stays as it is until its reader wants the
 * newer one: nobody's numbers move under their eyes, and nothing that is half typed is lost.
 */
export function ChangedSince({ studyId, isOfResults }: ChangedSinceProps) {
  const [changes, setChanges] = useState(0);
  useStudyNews(studyId, ({ parts }) => {
    const quiet = isOfResults ? NO_EVIDENCE : READ_BY_ITSELF;
    if (parts.some((part) => !quiet.has(part))) setChanges((count) => count + 1);
  });
  return (
    // It stands at the bottom of what is seen, and takes room of its own below the page: what is the last on it
    // can always be reached.
    <div
      role="status"
      className="pointer-events-none sticky bottom-0 z-30 mx-auto w-max max-w-[calc(100vw-1.5rem)]"
    >
      {changes > 0 && (
        <p className="pointer-events-auto my-3 flex flex-wrap items-center gap-3 sheet border-plum bg-plum-soft px-3 py-2 shadow-lg">
          {isOfResults
            ? 'There is newer evidence than this page shows.'
            : 'This study has changed since you opened this page.'}
          <button type="button" className="action" onClick={() => location.reload()}>
            Update page
          </button>
        </p>
      )}
    </div>
  );
}

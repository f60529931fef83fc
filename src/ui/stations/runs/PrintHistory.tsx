import { useState } from 'react';
import { columnWords } from '../../../core/model/study/labels';
import { callApi } from '../../kit/request';
import { shortTime } from '../../lib/format';

interface Change {
  at: string;
  who: string | null;
  person: string | null;
  before: Record<string, string | number | null> | null;
  after: Record<string, string | number | null> | null;
}

/** What was changed on a print's record, when and by whom: shown when it is asked for. */
export function PrintHistory({ studyId, printId }: { studyId: string; printId: string }) {
  const [changes, setChanges] = useState<readonly Change[] | null>(null);
  const load = () =>
    callApi<Change[]>(
      'GET',
      `/studies/${studyId}/history?table=prints&print_id=${encodeURIComponent(printId)}`,
    ).then(setChanges, () => setChanges([]));
  return (
    <details className="mt-2 text-xs" onToggle={() => changes === null && void load()}>
      <summary>History of this record</summary>
      <ul className="mt-1">
        {changes?.length === 0 && <li className="text-ink-2">as it was imported</li>}
        {changes?.map((change) => (
          <li key={change.at}>
            <span className="font-mono">{shortTime(change.at)}</span> {byWhom(change)}:{' '}
            {describeChange(change)}
          </li>
        ))}
      </ul>
    </details>
  );
}

/** Who it was at the bench, with who was signed in beside it where that is somebody else's name. */
const byWhom = ({ who, person }: Change): string =>
  who !== null && person !== null && who !== person
    ? `${who} (signed in: ${person})`
    : (who ?? person ?? 'somebody');

function describeChange({ before, after }: Change): string {
  if (before === null) return 'entered';
  if (after === null) return 'taken out';
  const said = (value: string | number | null | undefined) => value ?? 'not known';
  return Object.keys(after)
    .filter((key) => key !== 'row_version' && before[key] !== after[key])
    .map((key) => `${columnWords(key)} ${said(before[key])} → ${said(after[key])}`)
    .join(', ');
}

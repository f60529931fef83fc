import { useState } from 'react';
import type { Deletable, DeletedCount } from '../../contract/deletions';
import { callApi } from '../kit/request';
import { useOnce } from '../kit/use-once';
import { useTrying } from '../kit/use-trying';

interface DeleteWholeProps {
  studyId: string;
  table: Deletable;
  /** The values of its key, in the order of the table's key. */
  rowKey: readonly string[];
  /** What it is, as its button says it: `print`, `part`. */
  noun: string;
  /** Whether it stands in a row of its own kind, and not at the end of a sheet. */
  isInRow?: boolean;
  onDeleted: (deleted: Deleted) => void;
}

/** What was deleted, and how it is restored. */
export interface Deleted {
  deletion_id: string;
  title: string;
}

/** Deletes something with everything that belongs to it, after it has listed that. */
export function DeleteWhole(props: DeleteWholeProps) {
  const { studyId, table, rowKey, noun, isInRow = false, onDeleted } = props;
  const [counts, setCounts] = useState<readonly DeletedCount[] | null>(null);
  const { message, isBusy, attempt } = useTrying();
  const once = useOnce();
  const path = `/studies/${studyId}/deletions`;
  const asked = { table, key: rowKey };
  const look = () =>
    attempt(async () => {
      const found = await callApi<{ counts: DeletedCount[] }>('PUT', path, asked);
      setCounts(found.counts);
    });
  const remove = () => attempt(async () => onDeleted(await callApi<Deleted>('POST', path, asked)));
  return (
    <div className={isInRow ? 'text-xs' : 'mt-3 border-t border-line-soft pt-2 text-xs'}>
      {counts === null ? (
        <button type="button" className="action" disabled={isBusy} onClick={() => void look()}>
          Delete {noun} …
        </button>
      ) : (
        <div role="group" aria-label={`Delete this ${noun}`}>
          <p>
            This deletes{' '}
            {counts.length === 0
              ? `the ${noun}`
              : counts
                  .map(({ rows, title }) => `${rows} ${rows === 1 ? `row of the ${title}` : title}`)
                  .join(', ')}
            . You can restore it for 30 days.
          </p>
          <p className="mt-1 flex gap-2">
            <button
              type="button"
              className="action action-main"
              disabled={isBusy}
              onClick={() => once('delete', remove)}
            >
              Delete {noun}
            </button>
            <button type="button" className="action" onClick={() => setCounts(null)}>
              Cancel
            </button>
          </p>
        </div>
      )}
      {message && (
        <p role="alert" className="text-warn">
          {message}
        </p>
      )}
    </div>
  );
}

interface UndoDeleteProps {
  studyId: string;
  deleted: Deleted;
  onRestored: () => void;
  onDismiss: () => void;
}

/** Says what was deleted, and restores it. */
export function UndoDelete({ studyId, deleted, onRestored, onDismiss }: UndoDeleteProps) {
  const { message, isBusy, attempt } = useTrying();
  const restore = () =>
    attempt(async () => {
      await callApi('POST', `/studies/${studyId}/deletions/${deleted.deletion_id}`, {
        action: 'restore',
      });
      onRestored();
    });
  return (
    <p role="status" className="mt-2 flex flex-wrap items-center gap-2 text-xs">
      Deleted: {deleted.title}.
      <button type="button" className="action" disabled={isBusy} onClick={() => void restore()}>
        Undo
      </button>
      <button type="button" className="action" onClick={onDismiss}>
        Dismiss
      </button>
      {message && <span className="text-warn">{message}</span>}
    </p>
  );
}

import { useState } from 'react';
import type { SpecimenFacts } from '../../../contract/specimens';
import { callApi } from '../../kit/request';
import { useOnce } from '../../kit/use-once';
import { useTrying } from '../../kit/use-trying';
import { localIso } from '../../lib/entry';
import { counted } from '../../lib/format';

interface MoveReadingsProps {
  studyId: string;
  specimen: SpecimenFacts;
  /** Other specimens of the same part. */
  others: readonly SpecimenFacts[];
  /** The readings that stand under the specimen. */
  readingIds: readonly string[];
  onMoved: () => void;
}

interface Moved {
  from: string;
  to: string;
  ids: string[];
}

const called = (one: SpecimenFacts): string => one.code ?? one.specimen_id;

/** Moves readings to the specimen that was really in the hand: the wrong sticker was scanned. */
export function MoveReadings(props: MoveReadingsProps) {
  const { studyId, specimen, others, readingIds, onMoved } = props;
  const [to, setTo] = useState('');
  const [moved, setMoved] = useState<Moved | null>(null);
  const { message, isBusy, attempt } = useTrying();
  const once = useOnce();
  const nameOf = (id: string) =>
    [specimen, ...others]
      .map((one) => (one.specimen_id === id ? called(one) : null))
      .find(Boolean) ?? id;
  const move = (from: string, target: string, ids: readonly string[]) =>
    attempt(async () => {
      const answer = await callApi<{ readings: { reading_id: string }[] }>(
        'POST',
        `/studies/${studyId}/readings/moves`,
        { reading_ids: ids, to: target, at: localIso(new Date()) },
      );
      setMoved({ from, to: target, ids: answer.readings.map((row) => row.reading_id) });
      setTo('');
      onMoved();
    });
  return (
    <details className="mt-2 px-1 text-xs">
      <summary className="cursor-pointer text-ink-2">These readings are of another part</summary>
      <p className="mt-1 flex flex-wrap items-end gap-2">
        <label className="text-ink-2">
          Part that was measured
          <select
            className="block field w-56"
            value={to}
            onChange={(event) => setTo(event.target.value)}
          >
            <option value="">choose a part</option>
            {others.map((one) => (
              <option key={one.specimen_id} value={one.specimen_id}>
                {called(one)}, repeat {one.repeat}
              </option>
            ))}
          </select>
        </label>
        <button
          type="button"
          className="action"
          disabled={to === '' || readingIds.length === 0 || isBusy}
          onClick={() => once('move', () => move(specimen.specimen_id, to, readingIds))}
        >
          Move {counted(readingIds.length, 'reading')}
        </button>
      </p>
      {moved && (
        <p role="status" className="mt-1">
          {counted(moved.ids.length, 'reading')} moved from {nameOf(moved.from)} to{' '}
          {nameOf(moved.to)}.{' '}
          <button
            type="button"
            className="action"
            disabled={isBusy}
            onClick={() => once('undo', () => move(moved.to, moved.from, moved.ids))}
          >
            Undo
          </button>
        </p>
      )}
      {message && (
        <p role="alert" className="text-warn">
          {message}
        </p>
      )}
    </details>
  );
}

import { useEffect, useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { Stored } from '../../../contract/rows';
import type { SpecimenFacts } from '../../../contract/specimens';
import { callApi } from '../../kit/request';
import { useOnce } from '../../kit/use-once';
import { useTrying } from '../../kit/use-trying';
import { DeleteWhole, type Deleted } from '../../records/DeleteWhole';

interface PrintPartsProps {
  studyId: string;
  printId: string;
  onDeleted: (deleted: Deleted) => void;
}

type Part = Pick<SpecimenFacts, 'specimen_id' | 'code' | 'copy' | 'print_id' | 'measured'>;

/** The parts that came off the plate: each with its sticker; parts can be added and deleted. */
export function PrintParts({ studyId, printId, onDeleted }: PrintPartsProps) {
  const [parts, setParts] = useState<readonly Part[] | null>(null);
  const { message, isBusy, attempt } = useTrying();
  const once = useOnce();
  useEffect(() => {
    let isGone = false;
    callApi<Part[]>('GET', `/studies/${studyId}/specimens`).then(
      (all) => !isGone && setParts(all.filter((part) => part.print_id === printId)),
      () => undefined,
    );
    return () => {
      isGone = true;
    };
  }, [studyId, printId]);
  const add = () =>
    attempt(async () => {
      const copy = 1 + Math.max(0, ...(parts ?? []).map((part) => part.copy ?? 0));
      const row = { specimen_id: uuid(), print_id: printId, copy };
      const added = await callApi<Stored<'specimens'>>(
        'POST',
        `/studies/${studyId}/rows/specimens`,
        row,
      );
      setParts((known) => [...(known ?? []), { ...added, measured: 0 }]);
    });
  if (parts === null) return null;
  return (
    <section className="mt-3 border-t border-line-soft pt-2" aria-label="Parts of this print">
      <h3 className="text-xs font-semibold">Parts of this print</h3>
      <ul className="text-xs">
        {parts.map((part) => (
          <li key={part.specimen_id} className="flex flex-wrap items-baseline gap-2">
            <a
              className="font-mono"
              href={`/studies/${studyId}/measure?specimen=${encodeURIComponent(part.specimen_id)}`}
            >
              {part.code ?? part.specimen_id}
            </a>
            <span className="text-ink-2">
              {part.copy !== null && `copy ${part.copy} · `}
              {part.measured} dimensions measured
            </span>
            <DeleteWhole
              studyId={studyId}
              table="specimens"
              rowKey={[part.specimen_id]}
              noun="part"
              isInRow
              onDeleted={(deleted) => {
                setParts((known) =>
                  (known ?? []).filter((one) => one.specimen_id !== part.specimen_id),
                );
                onDeleted(deleted);
              }}
            />
          </li>
        ))}
        {parts.length === 0 && <li className="text-ink-2">No part is entered.</li>}
      </ul>
      <p className="mt-1 flex flex-wrap gap-2">
        <button type="button" className="action" disabled={isBusy} onClick={() => once('add', add)}>
          Add part
        </button>
        {parts.length > 0 && (
          <a
            className="action"
            href={`/studies/${studyId}/sheets?of=parts&print=${encodeURIComponent(printId)}`}
          >
            Print stickers
          </a>
        )}
      </p>
      {message && (
        <p role="alert" className="text-xs text-warn">
          {message}
        </p>
      )}
    </section>
  );
}

import { useState } from 'react';
import type { SlicedSummary } from '../../contract/sliced-files';
import { callApi, failureText } from '../kit/request';
import { useOnce } from '../kit/use-once';
import { counted } from '../lib/format';
import { NO_DRAFT, purposeNow, type PurposeDraft } from './FilePurpose';

interface ConfirmAllProps {
  studyId: string;
  /** Files that are read and not confirmed. */
  files: readonly SlicedSummary[];
  drafts: ReadonlyMap<string, PurposeDraft>;
  onConfirmed: (files: readonly SlicedSummary[]) => void;
}

/** Confirms what all files are for at once, those whose contender and artefact are chosen or proposed. */
export function ConfirmAll({ studyId, files, drafts, onConfirmed }: ConfirmAllProps) {
  const [message, setMessage] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const once = useOnce();
  const known = files.flatMap((file) => {
    const purpose = purposeNow(file, drafts.get(file.path) ?? NO_DRAFT);
    return purpose === null ? [] : [{ path: file.path, ...purpose }];
  });
  if (known.length < 2) return null;
  const left = files.length - known.length;
  const confirm = async () => {
    setBusy(true);
    setMessage(null);
    try {
      onConfirmed(
        await callApi<SlicedSummary[]>('PATCH', `/studies/${studyId}/sliced-files`, known),
      );
    } catch (error) {
      setMessage(failureText(error, 'The files were not confirmed.'));
    } finally {
      setBusy(false);
    }
  };
  return (
    <p className="flex flex-wrap items-center gap-3 border-b border-line bg-plum-soft px-3 py-2 text-xs">
      <button
        type="button"
        className="action action-main"
        aria-busy={isBusy}
        onClick={() => once('all', confirm)}
      >
        Confirm {counted(known.length, 'proposal')}
      </button>
      <span>
        Check contender and artefact in the rows below first.
        {left > 0 && ` ${counted(left, 'file')} without a proposal must be chosen by hand.`}
      </span>
      {message !== null && (
        <span role="alert" className="text-warn">
          {message}
        </span>
      )}
    </p>
  );
}

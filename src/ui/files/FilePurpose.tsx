import { useState } from 'react';
import type { ContenderMark } from '../../core/model/study';
import type { SlicedSummary } from '../../contract/sliced-files';
import { callApi, failureText } from '../kit/request';

/** What a person chose for a file; null where they left the proposal. */
export interface PurposeDraft {
  contender: string | null;
  artefact: string | null;
  isLinking: boolean;
}

export const NO_DRAFT: PurposeDraft = { contender: null, artefact: null, isLinking: true };

/** What a file is for, as it would be confirmed now; null as long as one of the two is open. */
export function purposeNow(file: SlicedSummary, draft: PurposeDraft) {
  const contender_id = draft.contender ?? file.contender_id ?? '';
  const artefact_id = draft.artefact ?? file.artefact_id ?? '';
  if (contender_id === '' || artefact_id === '') return null;
  return { contender_id, artefact_id, link_prints: draft.isLinking };
}

interface FilePurposeProps {
  studyId: string;
  file: SlicedSummary;
  marks: readonly ContenderMark[];
  artefacts: readonly { id: string; name: string }[];
  /** What the person has chosen and not confirmed yet. */
  draft: PurposeDraft;
  onDraft: (draft: PurposeDraft) => void;
  onChanged: () => void;
}

/** What a file is for, as it was guessed, to be confirmed by a person. */
export function FilePurpose(props: FilePurposeProps) {
  const { studyId, file, marks, artefacts, draft, onDraft, onChanged } = props;
  const [message, setMessage] = useState<string | null>(null);
  const contenderId = draft.contender ?? file.contender_id ?? '';
  const artefactId = draft.artefact ?? file.artefact_id ?? '';
  const name = file.path.slice(file.path.lastIndexOf('/') + 1);
  const purpose = purposeNow(file, draft);
  const confirm = async () => {
    try {
      await callApi('PATCH', `/studies/${studyId}/sliced-files/${file.path}`, purpose);
      onChanged();
    } catch (error) {
      setMessage(failureText(error, 'The file was not confirmed.'));
    }
  };
  return (
    <span className="flex flex-wrap items-center gap-1.5">
      <select
        className="field w-40"
        aria-label={`Contender of ${name}`}
        value={contenderId}
        onChange={(event) => onDraft({ ...draft, contender: event.target.value })}
      >
        <option value="">contender …</option>
        {marks.map((mark) => (
          <option key={mark.contender_id} value={mark.contender_id}>
            {mark.label}
          </option>
        ))}
      </select>
      <select
        className="field w-32"
        aria-label={`Artefact of ${name}`}
        value={artefactId}
        onChange={(event) => onDraft({ ...draft, artefact: event.target.value })}
      >
        <option value="">artefact …</option>
        {artefacts.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
      <label
        className="inline-flex items-center gap-1"
        data-hint="prints of this contender and artefact that name no file yet"
      >
        <input
          type="checkbox"
          className="size-[18px]"
          checked={draft.isLinking}
          onChange={(event) => onDraft({ ...draft, isLinking: event.target.checked })}
        />
        its prints too
      </label>
      <button
        type="button"
        className="action"
        disabled={purpose === null}
        onClick={() => void confirm()}
      >
        Confirm
      </button>
      {message && (
        <span role="alert" className="text-warn">
          {message}
        </span>
      )}
    </span>
  );
}

import { useState } from 'react';
import type { ContenderMark } from '../../core/model/study';
import type { SlicedSummary } from '../../contract/sliced-files';
import { callApi, failureText } from '../kit/request';

interface FilePurposeProps {
  studyId: string;
  file: SlicedSummary;
  marks: readonly ContenderMark[];
  artefacts: readonly { id: string; name: string }[];
  onChanged: () => void;
}

/** What a file is for, as it was guessed, to be confirmed by a person. */
export function FilePurpose({ studyId, file, marks, artefacts, onChanged }: FilePurposeProps) {
  const [contender, setContender] = useState<string | null>(null);
  const [artefact, setArtefact] = useState<string | null>(null);
  const [isLinking, setLinking] = useState(true);
  const [message, setMessage] = useState<string | null>(null);
  const contenderId = contender ?? file.contender_id ?? '';
  const artefactId = artefact ?? file.artefact_id ?? '';
  const name = file.path.slice(file.path.lastIndexOf('/') + 1);
  const confirm = async () => {
    try {
      await callApi('PATCH', `/studies/${studyId}/sliced-files/${file.path}`, {
        contender_id: contenderId,
        artefact_id: artefactId,
        link_prints: isLinking,
      });
      onChanged();
    } catch (error) {
      setMessage(failureText(error, 'It could not be saved.'));
    }
  };
  return (
    <span className="flex flex-wrap items-center gap-1.5">
      <select
        className="field w-40"
        aria-label={`Contender of ${name}`}
        value={contenderId}
        onChange={(event) => setContender(event.target.value)}
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
        onChange={(event) => setArtefact(event.target.value)}
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
          checked={isLinking}
          onChange={(event) => setLinking(event.target.checked)}
        />
        its prints too
      </label>
      <button
        type="button"
        className="action"
        disabled={contenderId === '' || artefactId === ''}
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

import { useState } from 'react';
import { callApi, failureText } from '../kit/request';
import { counted } from '../lib/format';

interface UseSettingsProps {
  studyId: string;
  path: string;
  profile: string;
}

/** Fills the settings of the contender's profile in from what its sliced file states. */
export function UseSettings({ studyId, path, profile }: UseSettingsProps) {
  const [message, setMessage] = useState<string | null>(null);
  const fill = async () => {
    try {
      const { added, changed } = await callApi<{ added: number; changed: number }>(
        'POST',
        `/studies/${studyId}/profile-settings`,
        { path },
      );
      setMessage(`${counted(added, 'setting')} added, ${changed} changed`);
    } catch (error) {
      setMessage(failureText(error));
    }
  };
  return (
    <span className="flex items-center gap-2 text-xs">
      {message && <span role="status">{message}</span>}
      <button type="button" className="action" onClick={() => void fill()}>
        Fill in profile “{profile}”
      </button>
    </span>
  );
}

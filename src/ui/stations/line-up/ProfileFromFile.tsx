import { useState } from 'react';
import { readAgain } from '../../kit/leave';
import { callApi, failureText } from '../../kit/request';
import { useOnce } from '../../kit/use-once';

interface ProfileFromFileProps {
  studyId: string;
  files: readonly string[];
  profiles: readonly { value: string; label: string }[];
}

/** Makes a profile of the settings that a sliced file states. */
export function ProfileFromFile({ studyId, files, profiles }: ProfileFromFileProps) {
  const [path, setPath] = useState('');
  const [name, setName] = useState('');
  const [parent, setParent] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  const once = useOnce();
  if (files.length === 0) return null;
  const make = async () => {
    try {
      await callApi('POST', `/studies/${studyId}/profile-settings`, {
        path,
        new: {
          name: name.trim(),
          kind: parent === '' ? 'stock' : 'tuned',
          parent_id: parent === '' ? null : parent,
        },
      });
      await readAgain();
    } catch (error) {
      setMessage(failureText(error, 'It could not be made.'));
    }
  };
  return (
    <details className="sheet px-3 py-2">
      <summary className="font-medium">Make a profile of a sliced file’s settings</summary>
      <form
        className="mt-2 flex flex-wrap items-end gap-2"
        aria-label="Profile from a sliced file"
        onSubmit={(event) => {
          event.preventDefault();
          once('make', make);
        }}
      >
        <label className="text-xs text-ink-2">
          sliced file
          <select
            className="field"
            value={path}
            required
            onChange={(event) => setPath(event.target.value)}
          >
            <option value="">…</option>
            {files.map((file) => (
              <option key={file} value={file}>
                {file.slice(file.lastIndexOf('/') + 1)}
              </option>
            ))}
          </select>
        </label>
        <label className="text-xs text-ink-2">
          name of the profile
          <input
            className="field"
            value={name}
            required
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <label className="text-xs text-ink-2">
          stock parent, where it is tuned
          <select
            className="field"
            value={parent}
            onChange={(event) => setParent(event.target.value)}
          >
            <option value="">none: it is stock</option>
            {profiles.map((one) => (
              <option key={one.value} value={one.value}>
                {one.label}
              </option>
            ))}
          </select>
        </label>
        <button className="action action-main">Make the profile</button>
        {message && (
          <span role="alert" className="text-warn">
            {message}
          </span>
        )}
      </form>
    </details>
  );
}

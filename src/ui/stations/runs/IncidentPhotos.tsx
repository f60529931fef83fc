import { useState } from 'react';
import type { Stored } from '../../../contract/rows';
import { failureText, sendBytes } from '../../kit/request';

interface IncidentPhotosProps {
  studyId: string;
  incidentId: string;
  photos: readonly Stored<'incident_photos'>[];
}

/** Pictures of what went wrong: taken by the phone's camera or chosen, and kept with the incident. */
export function IncidentPhotos({ studyId, incidentId, photos }: IncidentPhotosProps) {
  const [paths, setPaths] = useState(() =>
    photos.filter((row) => row.incident_id === incidentId).map((row) => row.path),
  );
  const [message, setMessage] = useState<string | null>(null);
  const address = `/studies/${studyId}/incidents/${encodeURIComponent(incidentId)}/photos`;
  const send = async (file: File) => {
    setMessage('being sent …');
    try {
      const { path } = await sendBytes<{ path: string }>('PUT', address, file);
      setPaths((known) => [...known, path]);
      setMessage(null);
    } catch (error) {
      setMessage(`${failureText(error)} The photo was not saved.`);
    }
  };
  return (
    <section className="mt-3" aria-label="Photos">
      <div className="flex flex-wrap gap-2">
        {paths.map((path) => (
          <a key={path} href={`/api/v1${address}?path=${encodeURIComponent(path)}`}>
            <img
              className="h-28 border border-line"
              src={`/api/v1${address}?path=${encodeURIComponent(path)}`}
              alt={`Photo ${paths.indexOf(path) + 1} of the incident`}
            />
          </a>
        ))}
      </div>
      <label className="mt-2 block text-xs text-ink-2">
        add a photo
        <input
          type="file"
          accept="image/jpeg,image/png,image/webp"
          capture="environment"
          className="field"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            if (file) void send(file);
            event.target.value = '';
          }}
        />
      </label>
      {message && <p role="status">{message}</p>}
    </section>
  );
}

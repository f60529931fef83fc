import { useState } from 'react';
import type { Stored } from '../../../data';
import { readOperator } from '../../lib/operator';

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
  const address = `/api/v1/studies/${studyId}/incidents/${encodeURIComponent(incidentId)}/photos`;
  const send = async (file: File) => {
    setMessage('being sent …');
    const operator = readOperator();
    try {
      const response = await fetch(address, {
        method: 'PUT',
        headers: {
          'content-type': 'application/octet-stream',
          ...(operator && { 'x-operator': encodeURIComponent(operator) }),
        },
        body: file,
      });
      const answer = (await response.json()) as { path?: string; detail?: string };
      const { path } = answer;
      if (path !== undefined) setPaths((known) => [...known, path]);
      setMessage(path === undefined ? (answer.detail ?? 'It was not taken.') : null);
    } catch {
      setMessage('The server does not answer: the photo is not kept.');
    }
  };
  return (
    <section className="mt-3" aria-label="Photos">
      <div className="flex flex-wrap gap-2">
        {paths.map((path) => (
          <a key={path} href={`${address}?path=${encodeURIComponent(path)}`}>
            <img
              className="h-28 border border-line"
              src={`${address}?path=${encodeURIComponent(path)}`}
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

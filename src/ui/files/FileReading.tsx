import { useState } from 'react';
import type { SlicedFile } from '../../contract/sliced-files';
import { callApi } from '../kit/request';
import { usePolling } from '../kit/use-polling';
import { percent } from '../lib/format';

interface FileReadingProps {
  studyId: string;
  path: string;
  state: SlicedFile['state'];
  message: string | null;
}

const EVERY_MS = 700;

/** A file that is still being read, or could not be: the page shows the rest when it is. */
export function FileReading({ studyId, path, ...initial }: FileReadingProps) {
  const [file, setFile] = useState<Pick<SlicedFile, 'state' | 'message' | 'read_share'>>({
    ...initial,
    read_share: 0,
  });
  const address = `/studies/${studyId}/sliced-files/${path}`;
  usePolling(
    async () => {
      const now = await callApi<SlicedFile>('GET', address);
      if (now.state === 'read') location.reload();
      else setFile(now);
    },
    EVERY_MS,
    file.state !== 'failed',
  );
  if (file.state !== 'failed') {
    return (
      <p className="sheet p-4" role="status">
        The file is being read: {percent(file.read_share)}.
      </p>
    );
  }
  return (
    <div className="sheet p-4" role="alert">
      <p className="mb-2">The file could not be read: it {file.message}.</p>
      <button
        type="button"
        className="action"
        onClick={() => void callApi<SlicedFile>('PATCH', address, { read: 'again' }).then(setFile)}
      >
        Read it again
      </button>
    </div>
  );
}

import { useState } from 'react';
import { callApi, failureText } from '../kit/request';
import { useOnce } from '../kit/use-once';
import { counted } from '../lib/format';

/** Removes all studies of the demo, or brings them back. */
export function DemoStudies({ here, inBin }: { here: number; inBin: number }) {
  const [message, setMessage] = useState<string | null>(null);
  const once = useOnce();
  if (here === 0 && inBin === 0) return null;
  const change = (method: 'DELETE' | 'POST') =>
    once(method, () =>
      callApi(method, '/demo-studies').then(
        () => location.reload(),
        (error: unknown) => setMessage(failureText(error, 'The studies were not changed.')),
      ),
    );
  return (
    <p className="mt-4 flex flex-wrap items-center gap-2 text-xs text-ink-2">
      {here > 0 ? (
        <>
          {counted(here, 'study', 'studies')} came with the program, with made-up data.
          <button type="button" className="action" onClick={() => change('DELETE')}>
            Remove demo studies
          </button>
        </>
      ) : (
        <>
          The demo studies are removed.
          <button type="button" className="action" onClick={() => change('POST')}>
            Bring demo studies back
          </button>
        </>
      )}
      {message && (
        <span role="alert" className="text-warn">
          {message}
        </span>
      )}
    </p>
  );
}

import { useState } from 'react';
import type { Offered } from '../../../server/line-up/line-up';
import { readAgain } from '../../kit/leave';
import { ApiError, callApi, failureText } from '../../kit/request';
import { useOnce } from '../../kit/use-once';
import { Suggest } from '../../kit/Suggest';

interface AddByProps {
  studyId: string;
  kind: 'machine' | 'artefact' | 'material' | 'instrument';
  placeholder: string;
  offered: readonly Offered[];
  className?: string;
}

/** One field that finds a thing of the workshop or makes a new one of its name. */
export function AddBy({ studyId, kind, placeholder, offered, className = 'w-72' }: AddByProps) {
  const [text, setText] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  const [twin, setTwin] = useState<{ uid: string; name: string } | null>(null);
  const plain = text.trim().toLowerCase();
  const items = plain === '' ? [] : offered.filter((one) => `${one.name} ${one.about}`.toLowerCase().includes(plain)).slice(0, 8); // prettier-ignore
  const once = useOnce();
  const add = async (picked: { uid: string } | { name: string; evenIfNamed?: boolean }) => {
    setMessage(null);
    setTwin(null);
    try {
      await callApi('POST', `/studies/${studyId}/line-up`, { add: kind, picked });
      await readAgain();
    } catch (error) {
      const current = error instanceof ApiError ? (error.current as typeof twin | undefined) : null;
      setTwin(current ?? null);
      setMessage(failureText(error));
    }
  };
  return (
    <div className={`offer ${className}`}>
      <Suggest
        label={`Add ${kind === 'artefact' || kind === 'instrument' ? 'an' : 'a'} ${kind}`}
        placeholder={placeholder}
        items={items}
        keyOf={(one) => one.uid}
        nameOf={(one) => one.name}
        onType={setText}
        onChoose={(one, typed) => once('add', () => add(one ? { uid: one.uid } : { name: typed }))}
        empty={`Enter makes a new ${kind}.`}
        render={(one) => (
          <>
            {one.name} <span className="text-2xs text-ink-2">{one.about || 'of the workshop'}</span>
          </>
        )}
      />
      {message && (
        <p role="alert" className="mt-1 flex flex-wrap items-center gap-2 text-xs text-warn">
          {message}
          {twin && (
            <>
              <button type="button" className="action" onClick={() => void add({ uid: twin.uid })}>
                That one
              </button>
              <button
                type="button"
                className="action"
                onClick={() => void add({ name: twin.name, evenIfNamed: true })}
              >
                A second one
              </button>
            </>
          )}
        </p>
      )}
    </div>
  );
}

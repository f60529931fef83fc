import { useState } from 'react';
import type { Offered } from '../../../contract/line-up';
import { readAgain } from '../../kit/leave';
import { ApiError, callApi, failureText } from '../../kit/request';
import { useSerialQueue } from '../../kit/use-serial-queue';
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
  const items =
    plain === ''
      ? []
      : offered
          .filter((one) => `${one.name} ${one.about}`.toLowerCase().includes(plain))
          .slice(0, 8);
  const [adding, setAdding] = useState<readonly string[]>([]);
  const once = useOnce();
  const inTurn = useSerialQueue();
  /** Adds one after another, whatever is typed while the server answers; the page shows them when all are there. */
  const add = (
    picked: { uid: string } | { name: string; evenIfNamed?: boolean },
    called: string,
  ): Promise<void> => {
    setMessage(null);
    setTwin(null);
    setAdding((known) => [...known, called]);
    return inTurn(async () => {
      try {
        await callApi('POST', `/studies/${studyId}/line-up`, { add: kind, picked });
        void readAgain();
      } catch (error) {
        const current =
          error instanceof ApiError ? (error.current as typeof twin | undefined) : null;
        setTwin(current ?? null);
        setMessage(`${called}: ${failureText(error)}`);
        setAdding((known) => known.filter((one) => one !== called));
      }
    });
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
        onChoose={(one, typed) =>
          // The same name twice is a hand that came down twice.
          once(one?.uid ?? typed, () =>
            one ? add({ uid: one.uid }, one.name) : add({ name: typed }, typed),
          )
        }
        empty={`Enter makes a new ${kind}.`}
        render={(one) => (
          <>
            {one.name} <span className="text-2xs text-ink-2">{one.about || 'of the workshop'}</span>
          </>
        )}
      />
      {adding.length > 0 && (
        <p role="status" className="mt-1 text-xs text-ink-2">
          Adding {adding.join(', ')} …
        </p>
      )}
      {message && (
        <p role="alert" className="mt-1 flex flex-wrap items-center gap-2 text-xs text-warn">
          {message}
          {twin && (
            <>
              <button
                type="button"
                className="action"
                onClick={() => void add({ uid: twin.uid }, twin.name)}
              >
                Use existing
              </button>
              <button
                type="button"
                className="action"
                onClick={() => void add({ name: twin.name, evenIfNamed: true }, twin.name)}
              >
                Add another
              </button>
            </>
          )}
        </p>
      )}
    </div>
  );
}

import { useState } from 'react';
import { readAgain } from '../kit/leave';
import { callApi, failureText } from '../kit/request';

/** What can be done with a thing beside changing it: merges taken back, put away, brought back. */
export function ItemActions(props: {
  uid: string;
  name: string;
  isDeleted: boolean;
  merged: readonly { uid: string; name: string; on: string }[];
}) {
  const [message, setMessage] = useState<string | null>(null);
  const act = async (work: () => Promise<unknown>) => {
    try {
      await work();
      void readAgain();
    } catch (error) {
      setMessage(failureText(error));
    }
  };
  return (
    <p className="mt-3 flex flex-wrap items-center gap-2 text-xs text-ink-2">
      {props.merged.map((one) => (
        <span key={one.uid} className="flex items-center gap-2">
          {one.name} was put together with it on {one.on}.
          <button
            type="button"
            className="action"
            onClick={() =>
              void act(() => callApi('POST', `/things/${one.uid}`, { action: 'split' }))
            }
          >
            They are two after all
          </button>
        </span>
      ))}
      {props.isDeleted ? (
        <>
          It is archived.
          <button
            type="button"
            className="action"
            onClick={() =>
              void act(() => callApi('POST', `/things/${props.uid}`, { action: 'restore' }))
            }
          >
            Put it back
          </button>
        </>
      ) : (
        <button
          type="button"
          className="action"
          data-hint="Studies that use it keep it. It can be brought back."
          onClick={() => void act(() => callApi('DELETE', `/things/${props.uid}`))}
        >
          Archive
        </button>
      )}
      {message && (
        <span role="alert" className="text-warn">
          {message}
        </span>
      )}
    </p>
  );
}

import { useState } from 'react';
import type { AskedPair } from '../../contract/workshop';
import { readAgain } from '../kit/leave';
import { callApi, failureText } from '../kit/request';

/** Things that are plainly the same, each pair to be decided on: nothing is merged by itself. */
export function AskedPairs({ pairs, one }: { pairs: readonly AskedPair[]; one: string }) {
  const [left, setLeft] = useState(pairs);
  const [message, setMessage] = useState<string | null>(null);
  if (left.length === 0) return null;
  const decide = async (pair: AskedPair, action: 'merge' | 'apart') => {
    try {
      await callApi('POST', `/things/${pair.one.uid}`, { action, other: pair.other.uid });
      if (action === 'merge') void readAgain();
      else setLeft((all) => all.filter((each) => each !== pair));
    } catch (error) {
      setMessage(failureText(error));
    }
  };
  return (
    <section className="mt-3 sheet" aria-label="Plainly the same">
      <h2 className="border-b border-line px-3 py-2 font-semibold">
        Is this one {one}?{' '}
        <span className="text-xs font-normal text-ink-2">
          Nothing is merged automatically. Studies keep their own data, and a merge can be undone.
        </span>
      </h2>
      <ul>
        {left.map((pair) => (
          <li
            key={`${pair.one.uid} ${pair.other.uid}`}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line-soft px-3 py-1.5"
          >
            <span className="min-w-0 flex-1">
              <b>{pair.one.name}</b> of {pair.one.studies.join(', ') || 'the workshop'} and{' '}
              <b>{pair.other.name}</b> of {pair.other.studies.join(', ') || 'the workshop'}:{' '}
              <span className="text-ink-2">the same {pair.by}</span>
            </span>
            <button type="button" className="action" onClick={() => void decide(pair, 'merge')}>
              They are one
            </button>
            <button type="button" className="action" onClick={() => void decide(pair, 'apart')}>
              They are two
            </button>
          </li>
        ))}
      </ul>
      {message && (
        <p role="alert" className="px-3 py-1.5 text-warn">
          {message}
        </p>
      )}
    </section>
  );
}

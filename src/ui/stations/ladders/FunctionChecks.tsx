import { useState } from 'react';
import { FUNCTION_RESULTS } from '../../../core/model/study';
import type { Stored } from '../../../contract/rows';
import { callApi, failureText } from '../../kit/request';
import type { InTurn } from '../../kit/use-serial-queue';
import type { Latest } from '../../kit/use-latest';
import { sendOrKeep } from '../../lib/outbox';

interface FunctionChecksProps {
  studyId: string;
  specimenId: string;
  /** Checks that were tried on other specimens of the artefact. */
  known: readonly string[];
  /** Of all specimens: what is said of one is there still when one comes back to it. */
  functions: Latest<readonly Stored<'function_results'>[]>;
  inTurn: InTurn;
}

type Result = (typeof FUNCTION_RESULTS)[number];

/** Trials of the part's job: each check with how it went on this specimen. */
export function FunctionChecks(props: FunctionChecksProps) {
  const { studyId, specimenId, known, functions, inTurn } = props;
  const [name, setName] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  const own = functions.shown.filter((row) => row.specimen_id === specimenId);
  const names = [...new Set([...known, ...own.map((row) => row.check)])];
  const base = `/studies/${studyId}/rows/function_results`;
  const put = async (check: string, result: Result): Promise<boolean> => {
    const is = (one: Stored<'function_results'>) =>
      one.specimen_id === specimenId && one.check === check;
    const before = functions.read().find(is);
    const row = { specimen_id: specimenId, check, result, note: null };
    try {
      const kept = before
        ? await callApi<Stored<'function_results'>>(
            'PATCH',
            `${base}/${[specimenId, check].map(encodeURIComponent).join('/')}`,
            { version: before.row_version, change: { result } },
          )
        : ((await sendOrKeep<Stored<'function_results'>>(base, row)) ?? { ...row, row_version: 1 });
      functions.change((all) => [...all.filter((one) => !is(one)), { ...row, ...kept }]);
      setMessage(null);
      return true;
    } catch (error) {
      setMessage(failureText(error));
      return false;
    }
  };
  const keep = (check: string, result: Result) => inTurn(() => put(check, result));
  return (
    <section className="sheet p-3" aria-labelledby="function-checks">
      <h2 id="function-checks" className="mb-2 font-semibold">
        Function checks
      </h2>
      {names.map((check) => {
        const result = own.find((row) => row.check === check)?.result;
        return (
          <p key={check} className="flex flex-wrap items-center gap-2 py-1">
            <span className="w-40">{check}</span>
            {FUNCTION_RESULTS.map((value) => (
              <button
                key={value}
                type="button"
                className={`action ${result === value ? 'action-main' : ''}`}
                aria-pressed={result === value}
                aria-label={`${check}: ${value.replaceAll('-', ' ')}`}
                onClick={() => void keep(check, value)}
              >
                {value.replaceAll('-', ' ')}
              </button>
            ))}
          </p>
        );
      })}
      <form
        className="mt-2 flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() !== '')
            void keep(name.trim(), 'works').then((isKept) => isKept && setName(''));
        }}
      >
        <label className="text-xs text-ink-2">
          another check, such as “turns”
          <input className="field" value={name} onChange={(event) => setName(event.target.value)} />
        </label>
        <button className="action" disabled={name.trim() === ''}>
          It works
        </button>
      </form>
      {message && (
        <p role="alert" className="text-warn">
          {message}
        </p>
      )}
    </section>
  );
}

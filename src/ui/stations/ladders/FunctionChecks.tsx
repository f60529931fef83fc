import { useState } from 'react';
import { FUNCTION_RESULTS } from '../../../core/study';
import type { Stored } from '../../../data';
import { callApi, failureText } from '../../kit/request';
import { sendOrKeep } from '../../lib/outbox';

interface FunctionChecksProps {
  studyId: string;
  specimenId: string;
  /** Checks that were tried on other specimens of the artefact. */
  known: readonly string[];
  functions: readonly Stored<'function_results'>[];
}

type Result = (typeof FUNCTION_RESULTS)[number];

/** Trials of the part's job: each check with how it went on this specimen. */
export function FunctionChecks({ studyId, specimenId, known, functions }: FunctionChecksProps) {
  const [rows, setRows] = useState(() => functions.filter((row) => row.specimen_id === specimenId));
  const [name, setName] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  const names = [...new Set([...known, ...rows.map((row) => row.check)])];
  const base = `/studies/${studyId}/rows/function_results`;
  const keep = async (check: string, result: Result) => {
    const before = rows.find((row) => row.check === check);
    const row = { specimen_id: specimenId, check, result, note: null };
    try {
      const kept = before
        ? await callApi<Stored<'function_results'>>(
            'PATCH',
            `${base}/${[specimenId, check].map(encodeURIComponent).join('/')}`,
            { version: before.row_version, change: { result } },
          )
        : ((await sendOrKeep<Stored<'function_results'>>(base, row)) ?? { ...row, row_version: 1 });
      setRows((all) => [...all.filter((one) => one !== before), { ...row, ...kept }]);
      setMessage(null);
    } catch (error) {
      setMessage(failureText(error));
    }
  };
  return (
    <section className="sheet p-3" aria-labelledby="function-checks">
      <h2 id="function-checks" className="mb-2 font-semibold">
        Function checks
      </h2>
      {names.map((check) => {
        const result = rows.find((row) => row.check === check)?.result;
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
          if (name.trim() !== '') void keep(name.trim(), 'works').then(() => setName(''));
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

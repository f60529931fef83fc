import { useState } from 'react';
import type { RevisionChanges } from '../../core/text/report';
import type { RevisionSeen } from '../../contract/report';
import { callApi, failureText } from '../kit/request';
import { Panel } from '../kit/Panel';
import type { Report } from './use-report';

interface PublishProps {
  report: Report;
  number: number;
  studyName: string;
  onClose: () => void;
}

/** Whom a report is open to. */
export function PublishPanel({ report, number, studyName, onClose }: PublishProps) {
  const { address, findings } = report.page;
  const [isOpen, setOpen] = useState(address?.name != null);
  const [name, setName] = useState(address?.name ?? studyName);
  const missing = findings.filter(({ weight }) => weight === 'missing');
  const publish = async () => {
    if (await report.publish(number, isOpen ? name : null)) onClose();
  };
  return (
    <Panel title={`Publish report ${number}`} onClose={onClose}>
      {missing.length > 0 && (
        <ul className="mb-2 bg-warn-soft p-2 text-warn">
          {missing.map(({ key, text }) => (
            <li key={key}>{text}</li>
          ))}
        </ul>
      )}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void publish();
        }}
      >
        <label className="flex min-h-[24px] items-center gap-1">
          <input
            type="radio"
            className="m-[5px]"
            name="open"
            checked={!isOpen}
            onChange={() => setOpen(false)}
          />
          Only who has the secret address reads it
        </label>
        <label className="flex min-h-[24px] items-center gap-1">
          <input
            type="radio"
            className="m-[5px]"
            name="open"
            checked={isOpen}
            onChange={() => setOpen(true)}
          />
          Anyone who can reach this server can read it, under a name
        </label>
        {isOpen && (
          <label className="my-1 block text-xs text-ink-2">
            /r/
            <input
              className="inline field w-72"
              value={name}
              pattern="[a-z0-9][a-z0-9\-]{1,60}[a-z0-9]"
              required
              onChange={(event) => setName(event.target.value)}
            />
          </label>
        )}
        {report.save.kind === 'refused' && (
          <p role="alert" className="text-warn">
            {report.save.message}
          </p>
        )}
        <button type="submit" className="mt-2 action action-main">
          Publish
        </button>
      </form>
    </Panel>
  );
}

export function WithdrawPanel({ report, number, onClose }: Omit<PublishProps, 'studyName'>) {
  const [why, setWhy] = useState('');
  const withdraw = async () => {
    if (await report.withdraw(number, why)) onClose();
  };
  return (
    <Panel title={`Withdraw report ${number}`} onClose={onClose}>
      <p className="mb-2">It stays where it is, and says first that it is withdrawn, and why.</p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void withdraw();
        }}
      >
        <label className="block text-xs text-ink-2">
          why
          <textarea
            className="block field"
            rows={3}
            required
            minLength={3}
            maxLength={2000}
            value={why}
            onChange={(event) => setWhy(event.target.value)}
          />
        </label>
        <button type="submit" className="mt-2 action action-main">
          Withdraw
        </button>
      </form>
    </Panel>
  );
}

interface ChangesProps {
  studyId: string;
  number: number;
  before: readonly RevisionSeen[];
  onClose: () => void;
}

/** Two revisions side by side: figures that moved, words, data. */
export function ChangesPanel({ studyId, number, before, onClose }: ChangesProps) {
  const [since, setSince] = useState(before[0]?.number ?? 1);
  const [shown, setShown] = useState<{ since: number; changes: RevisionChanges | string } | null>(
    null,
  );
  if (shown?.since !== since) {
    setShown({ since, changes: 'Looking …' });
    const path = `/studies/${studyId}/report/revisions/${number}/changes?since=${since}`;
    callApi<RevisionChanges>('GET', path).then(
      (changes) => setShown({ since, changes }),
      (error: unknown) => setShown({ since, changes: failureText(error) }),
    );
  }
  return (
    <Panel title={`What changed in report ${number}`} onClose={onClose}>
      <label className="mb-2 block text-xs text-ink-2">
        since report{' '}
        <select
          className="field w-auto"
          value={since}
          onChange={(event) => setSince(Number(event.target.value))}
        >
          {before.map((one) => (
            <option key={one.number} value={one.number}>
              {one.number}
            </option>
          ))}
        </select>
      </label>
      {typeof shown?.changes === 'string' || !shown ? (
        <p role="status">{shown?.changes as string}</p>
      ) : (
        <Changes changes={shown.changes} />
      )}
    </Panel>
  );
}

function Changes({ changes }: { changes: RevisionChanges }) {
  return (
    <>
      <h3 className="font-semibold">
        Figures beyond what was known of them: {changes.figures.length}
      </h3>
      {changes.figures.length > 0 && (
        <table className="mb-2 w-full text-xs">
          <thead>
            <tr className="border-b border-line">
              <th className="th">figure</th>
              <th className="th">report {changes.from}</th>
              <th className="th">report {changes.to}</th>
            </tr>
          </thead>
          <tbody>
            {changes.figures.map(({ address, label, then, now }) => (
              <tr key={address} className="border-b border-line-soft">
                <td className="px-2 py-0.5">{label}</td>
                <td className="px-2">{then}</td>
                <td className="px-2 font-medium">{now}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {changes.others > 0 && (
        <p className="mb-2 text-xs text-ink-2">
          {changes.others} figures without an interval, such as counts and medians, are others.
        </p>
      )}
      <h3 className="font-semibold">Words: {changes.words.length}</h3>
      <ul className="mb-2 text-xs">
        {changes.words.map(({ then, now }, at) => (
          <li key={at}>
            {then !== null && <del>{then}</del>} {now !== null && <ins>{now}</ins>}
          </li>
        ))}
      </ul>
      <h3 className="font-semibold">Data</h3>
      <p className="text-xs">
        {changes.data.length > 0
          ? changes.data
              .map(({ table, then, now }) => `${table.replaceAll('_', ' ')}: ${then} → ${now}`)
              .join(' · ')
          : changes.isSameData
            ? 'the same'
            : 'values were corrected'}
      </p>
    </>
  );
}

import { useEffect, useState } from 'react';
import { counted, inWords, type ContenderMark } from '../../../core/model/study';
import type { AgreementData } from '../../../contract/inspect';
import { callApi, failureText } from '../../kit/request';
import { OPERATOR_KEY } from '../../lib/operator';
import { useRemembered } from '../../lib/remembered';
import { Badge } from '../../marks/Badge';
import { GradeDisc } from '../../marks/GradeDisc';

interface TalkOverProps {
  studyId: string;
  /** Contenders that are not hidden. */
  marks: readonly ContenderMark[];
}

/** What is due by inspector, and where they differ on zones that the one who looks has graded. */
export function TalkOver({ studyId, marks }: TalkOverProps) {
  const [inspector] = useRemembered(OPERATOR_KEY);
  const [data, setData] = useState<AgreementData | null>(null);
  const [message, setMessage] = useState('');
  const asks = inspector.trim();
  useEffect(() => {
    if (asks === '') return undefined;
    let isGone = false;
    const path = `/studies/${studyId}/agreement?inspector=${encodeURIComponent(asks)}`;
    callApi<AgreementData>('GET', path).then(
      (found) => !isGone && setData(found),
      (error: unknown) => !isGone && setMessage(failureText(error)),
    );
    return () => {
      isGone = true;
      setData(null);
      setMessage('');
    };
  }, [studyId, asks]);
  if (asks === '') {
    return (
      <p className="sheet border-warn bg-warn-soft p-3">
        Enter your initials at the top right, beside “at the bench”. You then see what others found
        in the zones that you have graded.
      </p>
    );
  }
  if (!data) return <p role="status">{message || 'Looking it up …'}</p>;
  const base = `/studies/${studyId}/inspect`;
  const shown = data.disagreements.flatMap((one) => {
    const mark = marks.find(({ contender_id }) => contender_id === one.contender_id);
    return mark ? [{ ...one, mark }] : [];
  });
  const names = data.inspectors.map((one) => one.inspector);
  return (
    <>
      <section className="mb-3 sheet p-3" aria-labelledby="due">
        <h2 id="due" className="mb-1 font-semibold">
          What is due
        </h2>
        {data.inspectors.length === 0 && <p>Nothing has been inspected yet.</p>}
        <ul className="flex flex-wrap gap-x-6 gap-y-1">
          {data.inspectors.map(({ inspector: name, done, of, next }) => (
            <li key={name}>
              <b>{name}</b>{' '}
              <span className="font-mono">
                {done}/{of}
              </span>{' '}
              {next === null ? (
                'all zones looked at'
              ) : (
                <a href={`${base}?specimen=${encodeURIComponent(next)}`}>
                  {counted(of - done, 'zone')} due
                </a>
              )}
            </li>
          ))}
        </ul>
      </section>
      <section className="min-w-0 sheet" aria-labelledby="apart">
        <h2 id="apart" className="border-b border-line px-3 py-2 font-semibold">
          {counted(shown.length, 'disagreement')}
        </h2>
        <div className="overflow-x-auto">
          <table className="w-full whitespace-nowrap">
            <thead>
              <tr className="border-b border-line">
                {['specimen', 'zone', 'defect', ...names, 'apart'].map((head) => (
                  <th key={head} className="th" scope="col">
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {shown.map((one) => (
                <DisagreementRow
                  key={`${one.specimen_id} ${one.zone_id} ${one.defect}`}
                  one={one}
                  base={base}
                  names={names}
                />
              ))}
            </tbody>
          </table>
        </div>
      </section>
    </>
  );
}

interface DisagreementRowProps {
  one: AgreementData['disagreements'][number] & { mark: ContenderMark };
  base: string;
  names: string[];
}

/** One finding on which two inspectors are apart. */
function DisagreementRow({ one, base, names }: DisagreementRowProps) {
  return (
    <tr className="border-b border-line-soft">
      <th scope="row" className="px-2 py-1 text-left font-normal">
        <span className="inline-flex items-center gap-2">
          <Badge mark={one.mark} />
          <a
            href={
              `${base}?specimen=${encodeURIComponent(one.specimen_id)}` +
              `&zone=${encodeURIComponent(one.zone_id)}`
            }
          >
            {one.code}
          </a>
          <span className="text-xs text-ink-2">{one.artefact}</span>
        </span>
      </th>
      <td className="px-2">{one.zone}</td>
      <td className="px-2">{inWords(one.defect)}</td>
      {names.map((name) => {
        const own = one.grades.find((said) => said.inspector === name);
        return (
          <td key={name} className={`px-2 ${own ? '' : 'unknown'}`}>
            {own ? (
              <span className="inline-flex items-center gap-1">
                <GradeDisc grade={own.grade} /> {own.grade}
              </span>
            ) : (
              <span className="sr-only">not looked at</span>
            )}
          </td>
        );
      })}
      <td className="px-2 font-mono">{one.apart}</td>
    </tr>
  );
}

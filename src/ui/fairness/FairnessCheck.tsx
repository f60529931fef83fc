import { Explain } from '../marks/Explain';
import { Fragment, useState } from 'react';
import type { Fairness, FairnessItem } from '../../core/answers/fairness';
import { itemWords, formatValue } from '../../core/answers/fairness/sentence';
import type { ContenderMark } from '../../core/model/study';
import { readAgain } from '../kit/leave';
import { callApi, failureText } from '../kit/request';
import { localIso } from '../lib/entry';
import { readOperator } from '../lib/operator';
import { Badge } from '../marks/Badge';
import { FairnessSign } from './FairnessMark';
import { UnknownCell } from '../marks/Unknown';
import { Leaving } from '../kit/Leaving';

interface FairnessCheckProps {
  studyId: string;
  marks: readonly ContenderMark[];
  artefacts: readonly { id: string; name: string }[];
  fairness: readonly Fairness[];
  reference: string | null;
}

/**
 * Whether each contender may be compared with the reference, artefact by artefact and material by
 * material, and why not.
 */
export function FairnessCheck(props: FairnessCheckProps) {
  const { studyId, marks, artefacts, fairness, reference } = props;
  const worst =
    fairness.find((row) => row.result === 'confounded') ??
    fairness.find((row) => row.result === 'noted');
  const [opened, setOpened] = useState<string | null>(worst ? keyOf(worst) : null);
  const others = marks.filter((mark) => mark.contender_id !== reference);
  const shown = strataOf(fairness, artefacts);
  const open = fairness.find((row) => keyOf(row) === opened);
  const count = (result: Fairness['result']) =>
    fairness.filter((row) => row.result === result).length;
  if (fairness.length === 0) return null;
  return (
    <section className="min-w-0 sheet" aria-labelledby="fairness">
      <header className="border-b border-line px-3 py-2">
        <h2 id="fairness" className="font-semibold">
          Fairness check
          <Explain term="fairness" />
        </h2>
        <p className="text-xs text-ink-2">
          What differs from the reference besides what the study varies: {count('confounded')}{' '}
          confounded, {count('noted')} noted, {count('clean')} clean
        </p>
      </header>
      <div className="grid grid-cols-1 xl:grid-cols-[auto_minmax(0,1fr)]">
        <Leaving>
          <table className="w-full">
            <thead>
              <tr className="border-b border-line">
                <th className="th">artefact</th>
                {others.map((mark) => (
                  <th key={mark.contender_id} id={`fair-${mark.contender_id}`} className="th">
                    <Badge mark={mark} />
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {shown.map((artefact) => (
                <tr key={artefact.key} className="border-b border-line-soft">
                  <th scope="row" className="px-2 py-1 text-left font-normal whitespace-nowrap">
                    {artefact.name}
                  </th>
                  {others.map((mark) => {
                    const row = fairness.find(
                      (one) =>
                        one.contender === mark.contender_id && stratumOf(one) === artefact.key,
                    );
                    return row ? (
                      <td key={mark.contender_id} className="px-0.5 py-1 sm:px-1">
                        <button
                          type="button"
                          className={
                            'min-h-[24px] rounded-sm px-0.5 ' +
                            `${keyOf(row) === opened ? 'bg-plum-soft outline-1 outline-plum' : ''}`
                          }
                          aria-pressed={keyOf(row) === opened}
                          aria-label={`${artefact.name}, ${mark.label}: ${row.result}`}
                          onClick={() => setOpened(keyOf(row))}
                        >
                          <FairnessSign result={row.result} title={row.sentence} />
                        </button>
                      </td>
                    ) : (
                      <UnknownCell key={mark.contender_id} why="not both printed" />
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </Leaving>
        {open && (
          <PairItems
            key={opened}
            studyId={studyId}
            row={open}
            mark={marks.find((mark) => mark.contender_id === open.contender)}
            referenceMark={marks.find((mark) => mark.contender_id === open.reference)}
            artefact={shown.find((one) => one.key === stratumOf(open))?.name ?? ''}
          />
        )}
      </div>
    </section>
  );
}

const stratumOf = (row: Fairness): string => `${row.artefact_id}/${row.type ?? ''}`;
const keyOf = (row: Fairness): string => `${row.contender} ${stratumOf(row)}`;

/** What was compared: each artefact, with its material where it was printed in several. */
function strataOf(
  fairness: readonly Fairness[],
  artefacts: FairnessCheckProps['artefacts'],
): { key: string; name: string }[] {
  return artefacts.flatMap(({ id, name }) => {
    const own = fairness.filter((row) => row.artefact_id === id);
    const types = [...new Map(own.map((row) => [stratumOf(row), row.type]))];
    return types.map(([key, type]) => ({
      key,
      name: types.length > 1 && type !== null ? `${name} in ${type}` : name,
    }));
  });
}

interface PairItemsProps {
  studyId: string;
  row: Fairness;
  mark: ContenderMark | undefined;
  referenceMark: ContenderMark | undefined;
  artefact: string;
}

const ORDER = ['different', 'unknown', 'same'] as const;

function PairItems({ studyId, row, mark, referenceMark, artefact }: PairItemsProps) {
  const [accepting, setAccepting] = useState<string | null>(null);
  const weight = (item: FairnessItem) =>
    10 * ORDER.indexOf(item.state) + (item.role === 'held' ? 0 : item.role === 'noted' ? 1 : 2);
  const items = [...row.items].sort((a, b) => weight(a) - weight(b));
  return (
    <div className="border-line xl:border-l">
      <p className="flex flex-wrap items-center gap-2 px-3 pt-2">
        {mark && <Badge mark={mark} />} against {referenceMark && <Badge mark={referenceMark} />} on{' '}
        {artefact} <FairnessSign result={row.result} />
      </p>
      <p className="px-3 py-1.5">{row.sentence}</p>
      <Leaving>
        <div
          className="max-h-[300px] overflow-auto"
          tabIndex={0}
          role="region"
          aria-label="What was compared"
        >
          <table className="w-full text-xs">
            <thead className="sticky top-0 bg-sheet">
              <tr className="border-b border-line">
                <th className="th">item</th>
                <th className="th text-right">{mark ? <Badge mark={mark} /> : 'contender'}</th>
                <th className="th text-right">
                  {referenceMark ? <Badge mark={referenceMark} /> : 'reference'}
                </th>
                <th className="th">state</th>
              </tr>
            </thead>
            <tbody>
              {items.map((item) => (
                <Fragment key={item.key}>
                  <tr
                    className={`border-b border-line-soft ${item.state === 'different' ? '' : 'text-ink-2'}`}
                  >
                    <th scope="row" className="px-2 py-1 text-left font-normal">
                      {itemWords(item.key)}
                      {item.accepted && (
                        <span className="block text-2xs text-ink-2">
                          accepted: {item.accepted.reason}
                          {item.accepted.operator && ` (${item.accepted.operator})`}
                        </span>
                      )}
                    </th>
                    <Side item={item} value={item.contender_value} />
                    <Side item={item} value={item.reference_value} />
                    <td className="px-2">
                      {item.state === 'different' ? '≠ ' : item.state === 'same' ? '= ' : '? '}
                      {item.state}
                      {item.varies && ', varies'},{' '}
                      {item.role === 'held' ? 'must be equal' : item.role}
                      {item.role === 'held' &&
                        item.state !== 'same' &&
                        !item.accepted &&
                        accepting !== item.key && (
                          <button
                            type="button"
                            className="ml-1 min-h-[24px] text-plum underline"
                            onClick={() => setAccepting(item.key)}
                          >
                            accept …
                          </button>
                        )}
                    </td>
                  </tr>
                  {accepting === item.key && (
                    <tr className="border-b border-line-soft">
                      <td colSpan={4} className="px-2 pb-2">
                        <AcceptForm
                          studyId={studyId}
                          row={row}
                          item={item.key}
                          onCancel={() => setAccepting(null)}
                        />
                      </td>
                    </tr>
                  )}
                </Fragment>
              ))}
            </tbody>
          </table>
        </div>
      </Leaving>
    </div>
  );
}

/** Characters of a mesh's fingerprint that tell two meshes apart at a glance. */
const FINGERPRINT = 8;

function Side({ item, value }: { item: FairnessItem; value: FairnessItem['contender_value'] }) {
  if (value === null) return <UnknownCell />;
  const said = item.key === 'mesh' ? String(value).slice(0, FINGERPRINT) : formatValue(value);
  const isShortened = said !== String(value) || said.length > 16;
  return (
    <td
      className="max-w-[180px] truncate px-2 text-right font-mono"
      {...(isShortened && { tabIndex: 0, 'data-hint': formatValue(value) })}
    >
      {said}
    </td>
  );
}

interface AcceptFormProps {
  studyId: string;
  row: Fairness;
  item: string;
  onCancel: () => void;
}

function AcceptForm({ studyId, row, item, onCancel }: AcceptFormProps) {
  const [reason, setReason] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  const accept = async () => {
    try {
      await callApi('POST', `/studies/${studyId}/rows/accepted_differences`, {
        contender_id: row.contender,
        reference_id: row.reference,
        artefact_id: row.artefact_id,
        item,
        reason: reason.trim(),
        operator: readOperator() || null,
        at: localIso(new Date()),
      });
      void readAgain();
    } catch (error) {
      setMessage(failureText(error, 'It could not be saved.'));
    }
  };
  return (
    <form
      className="mt-1 flex gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim() !== '') void accept();
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onCancel();
      }}
    >
      <input
        className="field"
        aria-label={`Reason to accept that ${itemWords(item)} differs`}
        placeholder="why it may differ"
        value={reason}
        autoFocus
        onChange={(event) => setReason(event.target.value)}
      />
      <button className="action" disabled={reason.trim() === ''}>
        Accept
      </button>
      {message && (
        <span role="alert" className="text-warn">
          {message}
        </span>
      )}
    </form>
  );
}

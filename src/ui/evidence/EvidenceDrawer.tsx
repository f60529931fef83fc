import { elementOf } from '../kit/event-target';
import { useEffect, useRef, useState } from 'react';
import type { EvidenceColumn, EvidenceTable } from '../../core/answers/evidence';
import type { FoundEvidence } from '../../contract/results';
import { callApi, failureText } from '../kit/request';
import { Drawer } from '../kit/Drawer';
import { Leaving } from '../kit/Leaving';
import { UseInReport } from '../report/UseInReport';

interface EvidenceDrawerProps {
  studyId: string;
  reference: string | null;
  /** Whether that is the study's own reference, and not one that the view asks for. */
  isOwnReference: boolean;
  /** The revision of the study that the page shows. */
  revision: string;
}

/** What was found, or why nothing was; neither while it is looked up. */
interface Content {
  evidence?: FoundEvidence;
  message?: string;
}

const NOTHING_YET: Content = {};

/** The panel that opens over the right side from any figure, with what it was computed from. */
export function EvidenceDrawer({
  studyId,
  reference,
  isOwnReference,
  revision,
}: EvidenceDrawerProps) {
  const [figure, setFigure] = useState<string | null>(null);
  const [content, setContent] = useState(NOTHING_YET);
  const opener = useRef<HTMLElement | null>(null);

  useEffect(() => {
    const onClick = (event: MouseEvent) => {
      const target = elementOf(event);
      if (!target) return;
      const source = target.closest<HTMLElement>('[data-figure]');
      if (!source?.dataset.figure) return;
      opener.current = source;
      setContent(NOTHING_YET);
      setFigure(source.dataset.figure);
    };
    document.addEventListener('click', onClick);
    document.documentElement.dataset.evidence = 'ready';
    return () => document.removeEventListener('click', onClick);
  }, []);

  useEffect(() => {
    if (figure === null) return;
    let isStale = false;
    const query = new URLSearchParams({
      figure,
      revision,
      ...(reference !== null && { ref: reference }),
    });
    callApi<FoundEvidence>('GET', `/studies/${studyId}/evidence?${query.toString()}`).then(
      (evidence) => !isStale && setContent({ evidence }),
      (error: unknown) => !isStale && setContent({ message: failureText(error, 'No answer.') }),
    );
    return () => {
      isStale = true;
    };
  }, [figure, studyId, reference, revision]);

  const close = () => {
    setFigure(null);
    opener.current?.focus();
  };
  if (figure === null) return null;
  return (
    <Drawer
      key={figure}
      label="Evidence"
      title={content.evidence?.title ?? 'Looking it up …'}
      onClose={close}
    >
      <div
        className="@container flex-1 overflow-y-auto p-4"
        tabIndex={0}
        aria-label="What it was computed from"
      >
        {content.message !== undefined && <p role="alert">{content.message}</p>}
        {content.evidence && (
          <>
            {/* A report compares with the study's own reference. */}
            {isOwnReference && (
              <p className="mb-2">
                <UseInReport studyId={studyId} address={figure} title={content.evidence.title} />
              </p>
            )}
            <EvidenceBody evidence={content.evidence} />
          </>
        )}
      </div>
    </Drawer>
  );
}

function EvidenceBody({ evidence }: { evidence: FoundEvidence }) {
  return (
    <>
      {evidence.isNewer && (
        <p role="status" className="mb-2 text-warn">
          Evidence was added since this page was shown, and it is here already:{' '}
          <button type="button" className="underline" onClick={() => location.reload()}>
            reload the page
          </button>
          .
        </p>
      )}
      <p className="mb-2">{evidence.sentence}</p>
      <p className="mb-4 border-l-2 border-plum-line pl-2 text-xs text-ink-2">{evidence.formula}</p>
      {evidence.notes.map((note) => (
        <p key={note} className="mb-2 text-xs">
          {note}
        </p>
      ))}
      {evidence.tables.map((table) => (
        <EvidenceRows key={table.title} table={table} />
      ))}
    </>
  );
}

/** With more columns than these, rows are told in lines where there is little room. */
const MOST_BESIDE = 4;

const classOf = ({ isFigure, isList }: Partial<EvidenceColumn> = {}): string =>
  `${isFigure ? 'text-right font-mono' : ''} ${isList ? 'min-w-[104px]' : 'whitespace-nowrap'}`;

function EvidenceRows({ table }: { table: EvidenceTable }) {
  return (
    <section className="mb-5">
      <h3 className="mb-1 font-semibold">
        {table.title}{' '}
        <span className="font-normal text-ink-2">{table.rows.length + table.more}</span>
      </h3>
      {table.rows.length === 0 ? (
        <p className="text-ink-2">none</p>
      ) : (
        <Leaving>
          <table
            className={`w-full text-xs ${table.columns.length > MOST_BESIDE ? 'in-lines' : ''}`}
          >
            <thead>
              <tr className="border-b border-line">
                {table.columns.map((column) => (
                  <th
                    key={column.label}
                    className={`th px-1.5 whitespace-normal ${column.isFigure ? 'text-right' : ''}`}
                  >
                    {column.label}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {table.rows.map((row, at) => (
                <tr key={at} className="border-b border-line-soft">
                  {row.map((cell, column) => (
                    <td
                      key={column}
                      data-label={table.columns[column]?.label}
                      className={`px-1.5 py-1 ${classOf(table.columns[column])} ${
                        cell === null ? 'unknown' : ''
                      }`}
                    >
                      {cell === null ? <span className="sr-only">not known</span> : cell}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </Leaving>
      )}
      {table.more > 0 && (
        <p className="mt-1 text-xs text-ink-2">and {table.more} more: the export holds them all</p>
      )}
    </section>
  );
}

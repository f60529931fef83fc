import { useState } from 'react';
import type { ContenderMark } from '../../core/model/study';
import type { SeenSentence } from '../../contract/report';
import { usePicked } from './picked';
import type { Report } from './use-report';
import { Whose } from './Whose';

interface SentenceProps {
  studyId: string;
  report: Report;
  marks: readonly ContenderMark[];
  sentence: SeenSentence;
  onMove: (by: number) => void;
  isFirst: boolean;
  isLast: boolean;
}

/** One sentence: its words, whose it is, what it rests on, and whether that still stands. */
export function Sentence({
  studyId,
  report,
  marks,
  sentence,
  onMove,
  isFirst,
  isLast,
}: SentenceProps) {
  const [text, setText] = useState(sentence.text);
  const [seen, setSeen] = useState(sentence.text);
  const { picked, drop } = usePicked(studyId);
  // What somebody else wrote shows where nothing was typed here.
  if (seen !== sentence.text) {
    if (text === seen) setText(sentence.text);
    setSeen(sentence.text);
  }
  const moved = sentence.citations.filter((citation) => citation.moved || !citation.isThere);
  /** Keeps what is changed, and what was typed. */
  const keep = (change: Parameters<Report['change']>[1]) =>
    report.change(sentence.verdict_id, (now) => ({
      ...(text.trim() !== '' && text.trim() !== sentence.text && { text: text.trim() }),
      ...change(now),
    }));
  return (
    <li
      className="border-b border-line-soft py-1.5 last:border-0"
      data-sentence={sentence.verdict_id}
    >
      <div className="flex flex-wrap items-start gap-2">
        <Whose
          marks={marks}
          value={sentence.contender_id}
          onChange={(contender_id) => void keep(() => ({ contender_id }))}
        />
        <textarea
          className="[field-sizing:content] field min-w-0 flex-1 basis-64"
          rows={1}
          value={text}
          aria-label="Sentence"
          onChange={(event) => setText(event.target.value)}
          onBlur={() => {
            if (text.trim() !== '' && text.trim() !== sentence.text) void keep(() => ({}));
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void keep(() => ({}));
            if (event.key === 'Escape') setText(sentence.text);
          }}
        />
        <SentenceActions
          isFirst={isFirst}
          onMove={onMove}
          isLast={isLast}
          report={report}
          sentence={sentence}
        />
      </div>
      <Ties sentence={sentence} keep={keep} picked={picked} drop={drop} />
      {moved.length > 0 && (
        <p className="mt-1 flex flex-wrap items-center gap-2 bg-warn-soft px-2 py-1 text-xs text-warn">
          <b>Look again</b>
          {moved.map((citation) => (
            <span key={citation.address}>
              {citation.moved
                ? `then ${citation.moved.then}; now ${citation.said}`
                : `${citation.said}: this figure does not exist any more`}
            </span>
          ))}
          <button type="button" className="ml-auto action" onClick={() => void keep(() => ({}))}>
            It is still true
          </button>
        </p>
      )}
    </li>
  );
}

interface TiesProps {
  sentence: SeenSentence;
  keep: (change: Parameters<Report['change']>[1]) => Promise<boolean>;
  picked: ReturnType<typeof usePicked>['picked'];
  drop: (address: string | null) => void;
}

/** The figures that the sentence rests on, each with what became of it. */
function Ties({ sentence, keep, picked, drop }: TiesProps) {
  return (
    <p className="mt-1 flex flex-wrap items-center gap-1 text-xs">
      {sentence.citations.map((citation) => (
        <span
          key={citation.address}
          className={
            'rounded-full border px-2 ' +
            `${citation.isDecided ? 'border-plum-line bg-plum-soft text-plum' : 'border-line bg-desk text-ink-2'}`
          }
        >
          {citation.said}
          {!citation.isThere && ' · there is no such figure'}
          <button
            type="button"
            className="ml-1 min-h-[24px] min-w-[20px]"
            aria-label={`Do not use: ${citation.said}`}
            onClick={() =>
              void keep(({ rests_on }) => ({
                rests_on: rests_on.filter((one) => one !== citation.address),
              }))
            }
          >
            ✕
          </button>
        </span>
      ))}
      {sentence.citations.length === 0 && (
        <span className="text-ink-2">rests on no figure: pick some on a page of results</span>
      )}
      {picked.length > 0 && (
        <button
          type="button"
          className="underline"
          onClick={() => {
            const more = picked.map((one) => one.address);
            void keep(({ rests_on }) => ({ rests_on: [...rests_on, ...more] })).then(
              (isKept) => isKept && drop(null),
            );
          }}
        >
          rest on the {picked.length} picked
        </button>
      )}
    </p>
  );
}

interface SentenceActionsProps {
  isFirst: boolean;
  onMove: SentenceProps['onMove'];
  isLast: boolean;
  report: SentenceProps['report'];
  sentence: SeenSentence;
}

/** Up, down, and out. */
function SentenceActions({ isFirst, onMove, isLast, report, sentence }: SentenceActionsProps) {
  return (
    <span className="flex gap-1">
      <button
        type="button"
        className="action px-1.5"
        disabled={isFirst}
        aria-label="Move up"
        onClick={() => onMove(-1)}
      >
        ↑
      </button>
      <button
        type="button"
        className="action px-1.5"
        disabled={isLast}
        aria-label="Move down"
        onClick={() => onMove(1)}
      >
        ↓
      </button>
      <button
        type="button"
        className="action px-1.5"
        aria-label="Take the sentence out"
        onClick={() => void report.take(sentence.verdict_id)}
      >
        ✕
      </button>
    </span>
  );
}

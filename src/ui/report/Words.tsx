import { useId, useState } from 'react';
import type { ContenderMark } from '../../core/model/study';
import type { SeenSentence } from '../../contract/report';
import { useOnce } from '../kit/use-once';
import { usePicked } from './picked';
import { Proposed } from './Proposed';
import { Sentence } from './Sentence';
import type { Report } from './use-report';
import { Whose } from './Whose';

const KINDS = [
  ['answer', 'The answer', 'What a reader takes home: one or two sentences.'],
  ['for-whom', 'For whom', 'Who should take which, and on what condition.'],
  ['plus', 'What speaks for it', ''],
  ['minus', 'What speaks against it', ''],
  ['advice', 'What to fit and to set', ''],
  ['caveat', 'What holds this back', 'Beside those that are collected by themselves, below.'],
] as const;

interface WordsProps {
  studyId: string;
  report: Report;
  marks: readonly ContenderMark[];
}

/** The words of a report, kind by kind: sentences that stand, proposed ones, and a field for a new one. */
export function Words({ studyId, report, marks }: WordsProps) {
  const { page } = report;
  return (
    <>
      {KINDS.map(([kind, title, hint]) => {
        const own = page.sentences.filter((one) => one.kind === kind);
        return (
          <section key={kind} className="mb-3 sheet px-3 py-2" aria-labelledby={`words-${kind}`}>
            <h2 id={`words-${kind}`} className="font-semibold">
              {title} {hint !== '' && <small className="font-normal text-ink-2">{hint}</small>}
            </h2>
            <ul>
              {own.map((sentence, at) => (
                <Sentence
                  key={sentence.verdict_id}
                  studyId={studyId}
                  report={report}
                  marks={marks}
                  sentence={sentence}
                  onMove={(by) => void report.move(sentence.verdict_id, by)}
                  isFirst={at === 0}
                  isLast={at === own.length - 1}
                />
              ))}
            </ul>
            <Proposed report={report} marks={marks} kind={kind} />
            <NewSentence
              studyId={studyId}
              report={report}
              marks={marks}
              kind={kind}
              title={title}
            />
            {kind === 'caveat' && <Collected report={report} studyId={studyId} />}
          </section>
        );
      })}
    </>
  );
}

/** Caveats that stand in the report whatever is written. */
function Collected({ report, studyId }: { report: Report; studyId: string }) {
  const { caveats } = report.page;
  if (caveats.length === 0) return null;
  return (
    <details className="mt-2 text-xs" open={caveats.length <= 6}>
      <summary className="text-ink-2">Collected automatically: {caveats.length}</summary>
      <ul className="mt-1">
        {caveats.map(({ name, text, page }) => (
          <li key={name} className="mb-0.5 text-warn">
            {text}{' '}
            <a href={`/studies/${studyId}/${page}`} className="text-ink underline">
              look
            </a>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** A field for a sentence of one’s own, on the figures that were picked. */
function NewSentence({
  studyId,
  report,
  marks,
  kind,
  title,
}: WordsProps & { kind: SeenSentence['kind']; title: string }) {
  const [text, setText] = useState('');
  const [contender, setContender] = useState<string | null>(null);
  const { picked, drop } = usePicked(studyId);
  const once = useOnce();
  const id = useId();
  const add = async () => {
    const rests_on = picked.map((one) => one.address);
    const isKept = await report.write({
      kind,
      contender_id: contender,
      text: text.trim(),
      rests_on,
    });
    if (!isKept) return;
    // What was typed on meanwhile is the next sentence.
    setText((now) => (now === text ? '' : now));
    drop(null);
  };
  return (
    <form
      className="mt-1 flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() !== '') once('add', add);
      }}
    >
      <Whose marks={marks} value={contender} onChange={setContender} />
      <label htmlFor={id} className="sr-only">
        {`New sentence: ${title}`}
      </label>
      <input
        id={id}
        className="field min-w-0 flex-1 basis-64"
        placeholder="a sentence of your own …"
        maxLength={4000}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      {text.trim() !== '' && (
        <button type="submit" className="action">
          Add {picked.length > 0 ? `on ${picked.length} picked` : ''} <kbd className="key">↵</kbd>
        </button>
      )}
    </form>
  );
}

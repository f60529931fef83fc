import { useState, type SetStateAction, type Dispatch } from 'react';
import { callApi, failureText } from '../kit/request';
import { counted } from '../lib/format';
import { ImportPanel } from './ImportPanel';
import { INTENT_WORDS } from './intents';
import { NewStudy } from './NewStudy';

/** A study as the list shows it. */
export interface ListedStudy {
  study_id: string;
  title: string;
  intent: string;
  question: string | null;
  changed: string;
  contenders: number;
  prints: number;
  readings: number;
}

/** What is said of the package of a study in which nothing has been printed. */
const NOT_WHOLE =
  'Nothing has been printed yet: other programs can read this package, but it can be ' +
  'imported here only once it holds a print.';

/** All studies; a new one, or one from a package, begins here. */
export function StudyList(props: {
  studies: readonly ListedStudy[];
  /** A machine of the workshop that a new study is begun with; none where it is empty. */
  machine: string;
  /** What whoever asks may do: what they may not is not offered. */
  may: { delete: boolean; export: boolean };
  /** How many deleted studies can be brought back. */
  inBin: number;
}) {
  const { studies, machine, may, inBin } = props;
  const [panel, setPanel] = useState<'new' | 'import' | null>(machine === '' ? null : 'new');
  const [again, setAgain] = useState('');
  return (
    <>
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h1 className="text-lg font-semibold">Studies</h1>
        <p className="flex gap-2">
          <button type="button" className="action" onClick={() => setPanel('import')}>
            Import a package
          </button>
          <button
            type="button"
            className="action action-main"
            onClick={() => {
              setAgain('');
              setPanel('new');
            }}
          >
            New study
          </button>
        </p>
      </div>
      {panel === 'new' && (
        <NewStudy
          key={again}
          studies={studies}
          again={again}
          machine={machine}
          onCancel={() => setPanel(null)}
        />
      )}
      {panel === 'import' && <ImportPanel onCancel={() => setPanel(null)} />}
      {studies.length === 0 && panel === null && (
        <p className="mt-3 sheet p-4">
          No study yet. Begin one, or import a study package: a folder or zip of CSV tables.
        </p>
      )}
      <ul className="mt-3 grid gap-2">
        {studies.map((study) => (
          <StudyLine
            key={study.study_id}
            study={study}
            may={may}
            setAgain={setAgain}
            setPanel={setPanel}
          />
        ))}
      </ul>
      {may.delete && inBin > 0 && (
        <p className="mt-3 text-xs">
          <a href="/bin">Deleted items ({inBin})</a>
        </p>
      )}
    </>
  );
}

interface StudyLineProps {
  study: ListedStudy;
  may: { delete: boolean; export: boolean };
  setAgain: Dispatch<SetStateAction<string>>;
  setPanel: Dispatch<SetStateAction<'new' | 'import' | null>>;
}

/** One study, and what can be done with it. */
function StudyLine({ study, may, setAgain, setPanel }: StudyLineProps) {
  return (
    <li className="flex flex-wrap items-start gap-x-6 gap-y-2 sheet p-3">
      <div className="min-w-0 flex-1 basis-80">
        <a
          href={`/studies/${study.study_id}/results/glance`}
          className="text-base font-semibold no-underline hover:underline"
        >
          {study.title}
        </a>
        <p className="text-ink-2">{study.question ?? 'No question is written down yet.'}</p>
      </div>
      <dl className="flex flex-wrap gap-x-5 gap-y-1 text-xs">
        <Fact
          name="compares"
          value={INTENT_WORDS.find(([key]) => key === study.intent)?.[1] ?? study.intent}
        />
        <Fact name="line-up" value={counted(study.contenders, 'contender')} />
        <Fact
          name="evidence"
          value={`${counted(study.prints, 'print')}, ${counted(study.readings, 'reading')}`}
        />
        <Fact name="changed" value={study.changed} />
      </dl>
      <p className="flex gap-2 text-xs">
        <a className="action" href={`/studies/${study.study_id}/measure`}>
          Measure
        </a>
        {may.export && (
          <a
            className="action"
            href={`/api/v1/studies/${study.study_id}/package`}
            download
            {...(study.prints === 0 && { 'data-hint': NOT_WHOLE })}
          >
            Export
          </a>
        )}
        <button
          type="button"
          className="action"
          onClick={() => {
            setAgain(study.study_id);
            setPanel('new');
            window.scrollTo({ top: 0 });
          }}
        >
          Again with …
        </button>
        {may.delete && <DeleteStudy study={study} />}
      </p>
    </li>
  );
}

function Fact({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt className="text-2xs text-ink-2">{name}</dt>
      <dd>{value}</dd>
    </div>
  );
}

function DeleteStudy({ study }: { study: ListedStudy }) {
  const [stage, setStage] = useState<'idle' | 'asking' | 'gone'>('idle');
  const [title, setTitle] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  const path = `/studies/${study.study_id}`;
  const attempt = (work: () => Promise<unknown>, next: typeof stage) => {
    work().then(
      () => setStage(next),
      (error: unknown) => setMessage(failureText(error, 'It did not work.')),
    );
  };
  if (stage === 'gone') {
    return (
      <span role="status" className="flex items-center gap-2">
        Deleted.
        <button
          type="button"
          className="action"
          onClick={() => attempt(() => callApi('POST', path, { action: 'restore' }), 'idle')}
        >
          Bring it back
        </button>
      </span>
    );
  }
  if (stage === 'idle') {
    return (
      <button type="button" className="action" onClick={() => setStage('asking')}>
        Delete
      </button>
    );
  }
  return (
    <form
      aria-label={`Delete ${study.title}`}
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        attempt(() => callApi('DELETE', path, { title }), 'gone');
      }}
    >
      <label>
        <span className="sr-only">Type the study’s title to delete it</span>
        <input
          className="field w-56"
          autoFocus
          placeholder="type the title to delete it"
          value={title}
          onChange={(event) => setTitle(event.target.value)}
        />
      </label>
      <button className="action">Delete</button>
      <button type="button" className="action" onClick={() => setStage('idle')}>
        Keep it
      </button>
      {message && <span role="alert">{message}</span>}
    </form>
  );
}

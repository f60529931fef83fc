import { useState } from 'react';
import { callApi, failureText } from '../kit/request';
import { Menu, type MenuItem } from '../kit/Menu';
import { counted } from '../lib/format';
import { INTENT_WORDS } from './intents';
import { readLabels, type ListedStudy } from './listing';
import type { Shelf } from './use-shelf';

/** Why the package of a study without prints is incomplete. */
const NOT_WHOLE =
  'Nothing has been printed yet: other programs can read this package, but it can be ' +
  'imported here only once it holds a print.';

interface StudyLineProps {
  study: ListedStudy;
  may: { edit: boolean; delete: boolean; export: boolean };
  /** Why its last change was not saved; null where it was. */
  fault: string | null;
  onShelve: (shelf: Shelf) => void;
  onDuplicate: () => void;
}

/** One study of the list, with its actions in a menu. */
export function StudyLine({ study, may, fault, onShelve, onDuplicate }: StudyLineProps) {
  const [stage, setStage] = useState<'idle' | 'deleting' | 'deleted' | 'labelling'>('idle');
  const { study_id, title } = study;
  const path = `/studies/${study_id}`;
  const actions: MenuItem[] = [
    ...(may.edit
      ? [
          { label: 'Duplicate …', onSelect: onDuplicate },
          { label: 'Edit labels …', onSelect: () => setStage('labelling') },
        ]
      : []),
    ...(may.export ? [exportOf(study)] : []),
    ...(may.edit
      ? [
          {
            label: study.isArchived ? 'Bring back from the archive' : 'Archive',
            onSelect: () => onShelve({ isArchived: !study.isArchived }),
          },
        ]
      : []),
    ...(may.delete ? [{ label: 'Delete …', onSelect: () => setStage('deleting') }] : []),
  ];
  if (stage === 'deleted') {
    return <Deleted title={title} path={path} onBack={() => setStage('idle')} />;
  }
  return (
    <li className="flex flex-wrap items-start gap-x-6 gap-y-2 sheet p-3">
      <div className="min-w-0 flex-1 basis-80">
        <a
          href={`${path}/results/glance`}
          className="text-base font-semibold no-underline hover:underline"
        >
          {title}
        </a>
        {[...(study.isDemo ? ['demo'] : []), ...study.labels].map((label) => (
          <span
            key={label}
            className="ml-2 rounded-full border border-line bg-desk px-2 text-2xs text-ink-2"
          >
            {label}
          </span>
        ))}
        <p className="text-ink-2">{study.question ?? 'Its question is not written down yet.'}</p>
      </div>
      <Facts study={study} />
      {actions.length > 0 && <Menu label={`Actions for ${title}`} items={actions} />}
      {stage === 'labelling' && (
        <LabelForm
          labels={study.labels}
          onSave={(labels) => {
            onShelve({ labels });
            setStage('idle');
          }}
          onCancel={() => setStage('idle')}
        />
      )}
      {stage === 'deleting' && (
        <DeleteForm
          title={title}
          path={path}
          onDeleted={() => setStage('deleted')}
          onCancel={() => setStage('idle')}
        />
      )}
      {fault !== null && (
        <p role="alert" className="basis-full text-warn">
          {fault}
        </p>
      )}
    </li>
  );
}

const exportOf = ({ study_id, prints }: ListedStudy): MenuItem => ({
  label: 'Export package',
  href: `/api/v1/studies/${study_id}/package`,
  isDownload: true,
  hint: prints === 0 ? NOT_WHOLE : undefined,
});

function Facts({ study }: { study: ListedStudy }) {
  const facts = [
    ['Compares', INTENT_WORDS.find(([key]) => key === study.intent)?.[1] ?? study.intent],
    ['Line-up', counted(study.contenders, 'contender')],
    ['Evidence', `${counted(study.prints, 'print')}, ${counted(study.readings, 'reading')}`],
    ['Last change', study.changed],
  ] as const;
  return (
    <dl className="flex flex-wrap gap-x-5 gap-y-1 text-xs xl:grid xl:grid-cols-[14rem_6rem_9.5rem_5.5rem]">
      {facts.map(([name, value]) => (
        <div key={name}>
          <dt className="text-2xs text-ink-2">{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}

interface LabelFormProps {
  labels: readonly string[];
  onSave: (labels: string[]) => void;
  onCancel: () => void;
}

function LabelForm({ labels, onSave, onCancel }: LabelFormProps) {
  const [typed, setTyped] = useState(labels.join(', '));
  return (
    <form
      className="flex basis-full flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onSave(readLabels(typed));
      }}
      onKeyDown={(event) => event.key === 'Escape' && onCancel()}
    >
      <label className="min-w-48 flex-1 text-xs text-ink-2">
        Labels, separated by commas
        <input
          className="field"
          autoFocus
          value={typed}
          maxLength={400}
          onChange={(event) => setTyped(event.target.value)}
        />
      </label>
      <button className="action action-main">Save</button>
      <button type="button" className="action" onClick={onCancel}>
        Cancel
      </button>
    </form>
  );
}

interface DeleteFormProps {
  title: string;
  path: string;
  onDeleted: () => void;
  onCancel: () => void;
}

/** Deleting a study asks for its title. */
function DeleteForm({ title, path, onDeleted, onCancel }: DeleteFormProps) {
  const [typed, setTyped] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  return (
    <form
      aria-label={`Delete ${title}`}
      className="flex basis-full flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        callApi('DELETE', path, { title: typed }).then(onDeleted, (error: unknown) =>
          setMessage(failureText(error, 'The study was not deleted.')),
        );
      }}
      onKeyDown={(event) => event.key === 'Escape' && onCancel()}
    >
      <label className="min-w-48 flex-1 text-xs text-ink-2">
        Type the study’s title to delete it
        <input
          className="field"
          autoFocus
          placeholder={title}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
      </label>
      <button className="action">Delete</button>
      <button type="button" className="action" onClick={onCancel}>
        Cancel
      </button>
      {message && <span role="alert">{message}</span>}
    </form>
  );
}

function Deleted({ title, path, onBack }: { title: string; path: string; onBack: () => void }) {
  const [message, setMessage] = useState<string | null>(null);
  return (
    <li className="flex flex-wrap items-center gap-2 sheet p-3">
      <span role="status">“{title}” is deleted.</span>
      <button
        type="button"
        className="action"
        onClick={() =>
          void callApi('POST', path, { action: 'restore' }).then(onBack, (error: unknown) =>
            setMessage(failureText(error, 'The study was not brought back.')),
          )
        }
      >
        Bring it back
      </button>
      {message && <span role="alert">{message}</span>}
    </li>
  );
}

import { useState } from 'react';
import type { Fairness } from '../../../core/answers/fairness';
import type { ContenderMark } from '../../../core/model/study';
import type { LineUpPage } from '../../../contract/line-up';
import { Drawer } from '../../kit/Drawer';
import { readAgain } from '../../kit/leave';
import { callApi, failureText } from '../../kit/request';
import { useOnce } from '../../kit/use-once';
import type { FieldSpec } from '../../records/fields';
import { RecordForm } from '../../records/RecordForm';
import { nameOfThing } from '../../../core/answers/workshop/kinds';
import { AddBy } from './AddBy';
import { DropFiles } from './DropFiles';
import { LineUpTable } from './LineUpTable';

interface LineUpBenchProps {
  studyId: string;
  page: Pick<LineUpPage, 'rows' | 'stated' | 'firmware' | 'today' | 'unequal' | 'offered'>;
  /** Names of the study's parts. */
  parts: readonly string[];
  marks: readonly ContenderMark[];
  fairness: readonly Fairness[];
  reference: string | null;
  fields: Record<'contender' | 'profile', readonly FieldSpec[]>;
}

/** The line-up: one field adds a machine, a column is a contender, a cell is typed into. */
export function LineUpBench(props: LineUpBenchProps) {
  const { studyId, page, marks, reference } = props;
  const [opened, setOpened] = useState<string | null>(null);
  const mark = marks.find((one) => one.contender_id === opened);
  return (
    <>
      <div className="mb-3 flex flex-wrap items-end justify-between gap-2">
        <div className="min-w-0">
          <h1 className="text-lg font-semibold">Line-up</h1>
          <p className="text-xs text-ink-2">
            Who competes, with what. Bold differs from its stock parent; ″ as beside it; a hatched
            cell can be typed into.
          </p>
        </div>
        <div className="flex flex-wrap items-start gap-2">
          <AddBy
            studyId={studyId}
            kind="machine"
            placeholder="+ a machine: name, or one of the workshop"
            offered={page.offered.machine}
            className="w-80"
          />
          <DropFiles
            studyId={studyId}
            machines={[...page.rows.machines, ...page.offered.machine].map(({ name }) => name)}
            parts={[...props.parts, ...page.offered.artefact.map(({ name }) => name)]}
            materials={[
              ...page.rows.materials.map((row) => nameOfThing('material', { ...row })),
              ...page.offered.material.map(({ name }) => name),
            ]}
            hasMaterial={page.rows.materials.length > 0}
          />
        </div>
      </div>
      {marks.length === 0 ? (
        <p className="sheet p-4">
          No contenders yet. Type a machine’s name above: it is added with its stock profile.
        </p>
      ) : (
        <LineUpTable
          studyId={studyId}
          rows={page.rows}
          stated={page.stated}
          firmware={page.firmware}
          today={page.today}
          unequal={page.unequal}
          marks={marks}
          fairness={props.fairness}
          reference={reference}
          onOpen={setOpened}
        />
      )}
      {mark && (
        <Drawer
          key={mark.contender_id}
          label="Contender"
          title={`${mark.machineName} ${mark.variant}`}
          onClose={() => setOpened(null)}
        >
          <ContenderSheet {...props} mark={mark} />
        </Drawer>
      )}
    </>
  );
}

/** What is known of one contender, what can be made of it, and where more of it stands. */
function ContenderSheet({
  studyId,
  page,
  mark,
  reference,
  fields,
}: LineUpBenchProps & { mark: ContenderMark }) {
  const [message, setMessage] = useState<string | null>(null);
  const once = useOnce();
  const { contenders, profiles } = page.rows;
  const contender = contenders.find((one) => one.contender_id === mark.contender_id);
  const profile = profiles.find((one) => one.profile_id === contender?.profile_id);
  if (!contender || !profile) return null;
  const base = `/studies/${studyId}`;
  const doing = async (work: () => Promise<unknown>) => {
    setMessage(null);
    try {
      await work();
      await readAgain();
    } catch (error) {
      setMessage(failureText(error));
    }
  };
  const act = (work: () => Promise<unknown>) => once('act', () => doing(work));
  return (
    <div className="grid min-h-0 gap-4 overflow-auto p-4">
      <p className="flex flex-wrap gap-2">
        <button
          type="button"
          className="action action-main"
          onClick={() =>
            act(() =>
              callApi('POST', `${base}/line-up`, { add: 'tuned', contender_id: mark.contender_id }),
            )
          }
        >
          Add our own profile beside it
        </button>
        <a className="action" href={`${base}/machines/${contender.machine_id}`}>
          At the machine
        </a>
        <button
          type="button"
          className="action"
          disabled={mark.contender_id === reference}
          data-hint={
            mark.contender_id === reference
              ? 'It is the reference: choose another one first.'
              : undefined
          }
          onClick={() =>
            act(() =>
              callApi('DELETE', `${base}/rows/contenders/${mark.contender_id}`, {
                version: contender.row_version,
              }),
            )
          }
        >
          Remove contender
        </button>
      </p>
      {message && (
        <p role="alert" className="text-warn">
          {message}
        </p>
      )}
      <section aria-label="The contender">
        <h3 className="mb-1 font-semibold">The contender</h3>
        <RecordForm
          path={`${base}/rows/contenders/${contender.contender_id}`}
          fields={fields.contender}
          values={{ ...contender }}
          version={contender.row_version}
          label="The contender"
        />
      </section>
      <section aria-label="The profile">
        <h3 className="mb-1 font-semibold">The profile</h3>
        <RecordForm
          path={`${base}/rows/profiles/${profile.profile_id}`}
          fields={fields.profile}
          values={{ ...profile }}
          version={profile.row_version}
          label="The profile"
        />
      </section>
    </div>
  );
}

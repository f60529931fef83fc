import { chosenOf } from '../../kit/chosen';
import { useRef, useState, type SetStateAction, type Dispatch } from 'react';
import {
  profileSettings,
  proposeFromFiles,
  type ProposedFile,
} from '../../../core/answers/line-up/from-files';
import { counted } from '../../../core/model/study/labels';
import type { FirstLook } from '../../workers/first-look';
import { lookInto } from '../../files/look-into';
import { Drawer } from '../../kit/Drawer';
import { readAgain } from '../../kit/leave';
import { callApi, failureText } from '../../kit/request';
import { sendFile } from '../../kit/send-file';
import { useDrop } from '../../kit/use-drop';

interface DropFilesProps {
  studyId: string;
  machines: readonly string[];
  parts: readonly string[];
  /** Materials of the study first, then of the workshop. */
  materials: readonly string[];
  /** Whether the study has a material. */
  hasMaterial: boolean;
}

/** A file on its way into the line-up. */
interface Entry {
  file: File;
  look: FirstLook | null;
  fault: string | null;
  proposed: ProposedFile;
}

const NOTHING: ProposedFile = { machine: '', profile: '', kind: 'stock', part: '', material: null };

/** Sliced files dropped on the line-up: machine, profile, part, material and plan are proposed from what they say. */
export function DropFiles(props: DropFilesProps) {
  const { studyId, machines, parts, materials } = props;
  const input = useRef<HTMLInputElement>(null);
  const [entries, setEntries] = useState<readonly Entry[]>([]);
  const [material, setMaterial] = useState<string | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const [busy, setBusy] = useState<string | null>(null);
  const change = (file: File, more: Partial<Entry>) =>
    setEntries((all) => all.map((one) => (one.file === file ? { ...one, ...more } : one)));
  const say = (entry: Entry, more: Partial<ProposedFile>) =>
    change(entry.file, { proposed: { ...entry.proposed, ...more } });
  const take = useLooking({ machines, parts, change, setEntries });
  const drop = useDrop(take);
  const ready = entries.filter((one) => one.look !== null && one.fault === null);
  const isLooking = entries.some((one) => one.look === null && one.fault === null);
  const said = ready.flatMap((one) => one.proposed.material ?? []);
  const asked = material ?? (props.hasMaterial ? '' : (said[0] ?? materials[0] ?? 'PLA'));
  const put = async () => {
    setMessage(null);
    try {
      const files = [];
      for (const { file, look: found, proposed } of ready) {
        setBusy(`sending ${file.name}`);
        const base = `/studies/${studyId}/sliced-files`;
        const { path } = await sendFile(
          base,
          file,
          found?.sha256 ?? '',
          () => undefined,
          new AbortController().signal,
        );
        const { material: _, ...what } = proposed;
        files.push({ path, ...what, settings: profileSettings(found?.settings ?? {}) });
      }
      setBusy('setting up');
      await callApi('POST', `/studies/${studyId}/line-up/files`, {
        material: asked.trim() || null,
        files,
      });
      void readAgain();
    } catch (error) {
      setBusy(null);
      setMessage(failureText(error));
    }
  };
  const close = () => setEntries([]);
  return (
    <>
      <button
        type="button"
        className={`action h-full ${drop.isOver ? 'border-plum bg-plum-soft' : ''}`}
        onClick={() => input.current?.click()}
        {...drop.handlers}
      >
        Drop sliced files …
      </button>
      <input
        ref={input}
        type="file"
        multiple
        className="sr-only"
        tabIndex={-1}
        aria-label="Choose sliced files"
        onChange={(event) => {
          take(event.target.files);
          event.target.value = '';
        }}
      />
      {entries.length > 0 && (
        <Drawer label="From sliced files" title={counted(entries.length, 'file')} onClose={close}>
          <FilesForm
            put={put}
            machines={machines}
            parts={parts}
            materials={materials}
            entries={entries}
            say={say}
            hasMaterial={props.hasMaterial}
            asked={asked}
            setMaterial={setMaterial}
            message={message}
            isLooking={isLooking}
            busy={busy}
            ready={ready}
          />
        </Drawer>
      )}
    </>
  );
}

interface LookingGiven {
  machines: DropFilesProps['machines'];
  parts: DropFilesProps['parts'];
  change: (file: File, more: Partial<Entry>) => void;
  setEntries: Dispatch<SetStateAction<readonly Entry[]>>;
}

/** Looks into each file as it is dropped. */
function useLooking({ machines, parts, change, setEntries }: LookingGiven) {
  const look = async (file: File) => {
    try {
      const found = await lookInto(file, () => undefined, new AbortController().signal);
      const [proposed = NOTHING] = proposeFromFiles(
        [{ name: file.name, settings: found.settings }],
        { machines, parts },
      );
      change(file, { look: found, fault: found.fault, proposed });
    } catch (error) {
      change(file, { fault: failureText(error) });
    }
  };
  const take = (list: FileList | null) => {
    const files = [...(list ?? [])];
    setEntries((all) => [
      ...all,
      ...files.map((file) => ({ file, look: null, fault: null, proposed: NOTHING })),
    ]);
    void files.reduce((before, file) => before.then(() => look(file)), Promise.resolve());
  };
  return take;
}

interface FileEntryProps {
  entry: Entry;
  say: (entry: Entry, more: Partial<ProposedFile>) => void;
}

/** One file, with what it proposes. */
function FileEntry({ entry, say }: FileEntryProps) {
  return (
    <li className="grid gap-x-2 gap-y-1 border-b border-line-soft py-2 md:grid-cols-[1fr_1fr_90px_1fr]">
      <span className="truncate text-xs md:col-span-4">
        <b>{entry.file.name}</b> {entry.look === null && entry.fault === null && 'is being read …'}
        {entry.fault && (
          <span role="alert" className="text-warn">
            is left out: {entry.fault}
          </span>
        )}
      </span>
      {entry.look && entry.fault === null && (
        <>
          <Field
            label={`machine of ${entry.file.name}`}
            hint="machine"
            list="dropped-machines"
            value={entry.proposed.machine}
            onChange={(machine) => say(entry, { machine })}
          />
          <Field
            label={`profile of ${entry.file.name}`}
            hint="profile"
            value={entry.proposed.profile}
            onChange={(profile) => say(entry, { profile })}
          />
          <label className="text-2xs text-ink-2">
            whose
            <select
              className="field"
              aria-label={`which profile ${entry.file.name} belongs to`}
              value={entry.proposed.kind}
              onChange={(event) => say(entry, { kind: chosenOf(event, ['stock', 'tuned']) })}
            >
              <option value="stock">as shipped</option>
              <option value="tuned">ours</option>
            </select>
          </label>
          <Field
            label={`part of ${entry.file.name}`}
            hint="part"
            list="dropped-parts"
            value={entry.proposed.part}
            onChange={(part) => say(entry, { part })}
          />
        </>
      )}
    </li>
  );
}

interface FilesFormProps {
  put: () => Promise<void>;
  machines: DropFilesProps['machines'];
  parts: DropFilesProps['parts'];
  materials: DropFilesProps['materials'];
  entries: readonly Entry[];
  say: (entry: Entry, more: Partial<ProposedFile>) => void;
  hasMaterial: boolean;
  asked: string;
  setMaterial: Dispatch<SetStateAction<string | null>>;
  message: string | null;
  isLooking: boolean;
  busy: string | null;
  ready: Entry[];
}

/** All that were dropped, looked at before they go in. */
function FilesForm({
  put,
  machines,
  parts,
  materials,
  entries,
  say,
  hasMaterial,
  asked,
  setMaterial,
  message,
  isLooking,
  busy,
  ready,
}: FilesFormProps) {
  return (
    <form
      aria-label="From sliced files"
      className="min-h-0 overflow-auto p-4"
      onSubmit={(event) => {
        event.preventDefault();
        void put();
      }}
    >
      <p className="mb-2 text-xs text-ink-2">
        The files state these values. Names that the study or the workshop has are reused. Other
        names are added.
      </p>
      <Names id="dropped-machines" names={machines} />
      <Names id="dropped-parts" names={parts} />
      <Names id="dropped-materials" names={materials} />
      <ul>
        {entries.map((entry, at) => (
          <FileEntry key={at} entry={entry} say={say} />
        ))}
      </ul>
      <label className="mt-2 block text-xs text-ink-2">
        material {hasMaterial && '(empty: the study’s own)'}
        <input
          className="field"
          list="dropped-materials"
          value={asked}
          required={!hasMaterial}
          onChange={(event) => setMaterial(event.target.value)}
        />
      </label>
      {message && (
        <p role="alert" className="mt-2 text-warn">
          {message}
        </p>
      )}
      <p className="mt-3">
        <button
          className="action action-main"
          disabled={isLooking || busy !== null || ready.length === 0}
        >
          {busy ?? `Put ${counted(ready.length, 'file')} in`}
        </button>
      </p>
    </form>
  );
}

const Names = ({ id, names }: { id: string; names: readonly string[] }) => (
  <datalist id={id}>
    {names.map((name) => (
      <option key={name} value={name} />
    ))}
  </datalist>
);

function Field(props: {
  label: string;
  hint: string;
  value: string;
  list?: string;
  onChange: (value: string) => void;
}) {
  return (
    <label className="text-2xs text-ink-2">
      {props.hint}
      <input
        className="field"
        aria-label={props.label}
        required
        list={props.list}
        value={props.value}
        onChange={(event) => props.onChange(event.target.value)}
      />
    </label>
  );
}

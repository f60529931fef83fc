import { callApi, failureText } from '../kit/request';
import {
  useRef,
  useState,
  type Dispatch,
  type DragEvent,
  type SetStateAction,
  type RefObject,
} from 'react';
import { v7 as uuid } from 'uuid';
import { counted } from '../lib/format';
import { packFiles, type NamedFile } from './pack-files';
import { filesOfDrop } from './dropped-files';
import { uploadPackage, type ImportAnswer, type ImportFault } from './upload-package';
import { Leaving } from '../kit/Leaving';

/** A hash of a package's end, where a zip lists all that it holds with its checksums. */
async function listHash(zip: Blob): Promise<string> {
  const end = await zip.slice(-1024 * 1024).arrayBuffer();
  const hash = await crypto.subtle.digest('SHA-256', end);
  return [...new Uint8Array(hash)].map((byte) => byte.toString(16)).join('');
}

type Stage =
  | { kind: 'waiting' }
  | { kind: 'packing' }
  | { kind: 'sending'; share: number }
  | { kind: 'reading' }
  | { kind: 'alike'; studyId: string; alike: readonly { study_id: string; title: string }[] }
  | { kind: 'failed'; message: string }
  | { kind: 'faults'; answer: ImportAnswer & { faults: readonly ImportFault[] } };

/** Takes a study package, as a zip or a folder, by dropping it or by choosing it. */
export function ImportPanel({ onCancel }: { onCancel: () => void }) {
  const [stage, setStage] = useState<Stage>({ kind: 'waiting' });
  const [isOver, setOver] = useState(false);
  const abort = useRef<AbortController | null>(null);
  const sent = useRef<{ hash: string; key: string } | null>(null);
  /** The same package tried again on this page is the same import; on another page it is another. */
  const keyOf = async (zip: Blob): Promise<string> => {
    const hash = `${zip.size} ${await listHash(zip)}`;
    if (sent.current?.hash !== hash) sent.current = { hash, key: uuid() };
    return sent.current.key;
  };

  const take = async (files: readonly NamedFile[]) => {
    try {
      const [only] = files;
      const isZip = files.length === 1 && only !== undefined && /\.zip$/i.test(only.path);
      if (files.length === 0) throw new Error('Nothing was dropped.');
      setStage({ kind: 'packing' });
      const zip = isZip ? only.file : await packFiles(files);
      abort.current = new AbortController();
      const answer = await uploadPackage(
        zip,
        await keyOf(zip),
        (share) => setStage(share < 1 ? { kind: 'sending', share } : { kind: 'reading' }),
        abort.current.signal,
      );
      if (answer.study_id !== undefined && answer.alike?.length) {
        setStage({ kind: 'alike', studyId: answer.study_id, alike: answer.alike });
      } else if (answer.study_id !== undefined) {
        location.assign(`/studies/${answer.study_id}/results/glance`);
      } else if (answer.faults) {
        setStage({ kind: 'faults', answer: { ...answer, faults: answer.faults } });
      } else setStage({ kind: 'failed', message: answer.detail ?? 'The server did not take it.' });
    } catch (error) {
      setStage({
        kind: 'failed',
        message: failureText(error, 'It could not be read.'),
      });
    }
  };
  const chosen = (list: FileList | null) =>
    void take(
      [...(list ?? [])].map((file) => ({ path: file.webkitRelativePath || file.name, file })),
    );
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void filesOfDrop(event.dataTransfer).then(take);
  };
  const isBusy = ['packing', 'sending', 'reading'].includes(stage.kind);
  return (
    <section
      aria-label="Import study"
      className={`mt-3 sheet p-4 ${isOver ? 'border-plum bg-plum-soft' : ''}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      {stage.kind === 'alike' && <ImportedTwice {...stage} />}
      {!isBusy && stage.kind !== 'alike' && <ImportDrop chosen={chosen} onCancel={onCancel} />}
      {isBusy && <ImportProgress stage={stage} abort={abort} setStage={setStage} />}
      {stage.kind === 'failed' && (
        <p role="alert" className="mt-3 text-warn">
          {stage.message}
        </p>
      )}
      {stage.kind === 'faults' && <FaultTable answer={stage.answer} />}
    </section>
  );
}

interface ImportedTwiceProps {
  studyId: string;
  alike: readonly { study_id: string; title: string }[];
}

/** Says that a package of this name was imported before. */
function ImportedTwice({ studyId, alike }: ImportedTwiceProps) {
  const [message, setMessage] = useState<string | null>(null);
  const [title] = alike.map((one) => one.title);
  return (
    <div role="status">
      <p>
        The package was imported as a new study. A study from a package of the same name was here
        already:
      </p>
      <ul className="my-2 list-disc pl-5">
        {alike.map((one) => (
          <li key={one.study_id}>
            <a href={`/studies/${one.study_id}/results/glance`}>{one.title}</a>
          </li>
        ))}
      </ul>
      <p className="flex flex-wrap gap-2">
        <a className="action action-main" href={`/studies/${studyId}/results/glance`}>
          Open the new study
        </a>
        <button
          type="button"
          className="action"
          onClick={() =>
            void removeAgain(studyId).then(
              () => location.assign('/studies'),
              (error: unknown) => setMessage(failureText(error, 'The study was not deleted.')),
            )
          }
        >
          Delete the new study, keep “{title}”
        </button>
      </p>
      {message && (
        <p role="alert" className="mt-2 text-warn">
          {message}
        </p>
      )}
    </div>
  );
}

/** Deletes a study that was just imported: the request names it by its title. */
async function removeAgain(studyId: string): Promise<void> {
  const { title } = await callApi<{ title: string }>('GET', `/studies/${studyId}`);
  await callApi('DELETE', `/studies/${studyId}`, { title });
}

interface ImportProgressProps {
  stage: Stage;
  abort: RefObject<AbortController | null>;
  setStage: Dispatch<SetStateAction<Stage>>;
}

/** What is going on with the package. */
function ImportProgress({ stage, abort, setStage }: ImportProgressProps) {
  return (
    <div className="flex flex-wrap items-center gap-3" role="status">
      <progress
        className="h-2 w-64 accent-[var(--plum)]"
        {...(stage.kind === 'sending' && { value: stage.share })}
      />
      <span>
        {stage.kind === 'packing' && 'Putting the files together …'}
        {stage.kind === 'sending' && `Sending … ${Math.round(100 * stage.share)} %`}
        {stage.kind === 'reading' && 'Checking every row, then storing …'}
      </span>
      <button
        type="button"
        className="action"
        onClick={() => {
          abort.current?.abort();
          setStage({ kind: 'waiting' });
        }}
      >
        Cancel
      </button>
    </div>
  );
}

interface ImportDropProps {
  chosen: (list: FileList | null) => undefined;
  onCancel: () => void;
}

/** Where a package is dropped or chosen. */
function ImportDrop({ chosen, onCancel }: ImportDropProps) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <p>Drop a study package here: its folder, or a zip of it.</p>
      <label className="action">
        Choose a zip
        <input
          type="file"
          accept=".zip,application/zip"
          className="sr-only"
          onChange={(event) => chosen(event.target.files)}
        />
      </label>
      <label className="action">
        Choose a folder
        <input
          type="file"
          className="sr-only"
          multiple
          ref={(input) => input?.setAttribute('webkitdirectory', '')}
          onChange={(event) => chosen(event.target.files)}
        />
      </label>
      <button type="button" className="action" onClick={onCancel}>
        Cancel
      </button>
    </div>
  );
}

function FaultTable({ answer }: { answer: ImportAnswer & { faults: readonly ImportFault[] } }) {
  const total = answer.fault_count ?? answer.faults.length;
  return (
    <div role="alert" className="mt-3">
      <p className="font-semibold text-warn">
        {counted(total, 'fault')} in the package; nothing was imported.
      </p>
      <Leaving>
        <div className="mt-2 max-h-[50vh] overflow-auto border border-line" tabIndex={0}>
          <table className="w-full text-xs">
            <thead className="sticky top-0 bg-sheet">
              <tr className="border-b border-line">
                <th className="th">file</th>
                <th className="th text-right">line</th>
                <th className="th">column</th>
                <th className="th">what is wrong</th>
              </tr>
            </thead>
            <tbody>
              {answer.faults.map((fault, at) => (
                <tr key={at} className="border-b border-line-soft align-top">
                  <td className="px-2 py-1 font-mono">{fault.file}</td>
                  <td className="px-2 py-1 text-right font-mono">{fault.line}</td>
                  <td className="px-2 py-1 font-mono">
                    {fault.column === '-' ? 'the row' : fault.column}
                  </td>
                  <td className="px-2 py-1">{fault.message}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </Leaving>
      {total > answer.faults.length && (
        <p className="mt-1 text-xs text-ink-2">and {total - answer.faults.length} more</p>
      )}
    </div>
  );
}

import { messageOf } from '../../core/model/faults';
import { useRef, useState, type SetStateAction, type RefObject, type Dispatch } from 'react';
import type { ContenderMark } from '../../core/model/study';
import type { SlicedSummary } from '../../contract/sliced-files';
import type { FirstLook } from '../workers/first-look';
import { asItStands, callApi } from '../kit/request';
import { useDrop } from '../kit/use-drop';
import { usePolling } from '../kit/use-polling';
import { counted, duration, fixed, percent } from '../lib/format';
import { Badge } from '../marks/Badge';
import { Unknown } from '../marks/Unknown';
import { ConfirmAll } from './ConfirmAll';
import { FilePurpose, NO_DRAFT, type PurposeDraft } from './FilePurpose';
import { sendFile } from '../kit/send-file';
import { lookInto } from './look-into';
import { Leaving } from '../kit/Leaving';

interface SlicedFilesProps {
  studyId: string;
  marks: readonly ContenderMark[];
  artefacts: readonly { id: string; name: string }[];
  files: readonly SlicedSummary[];
}

/** A file on its way from the disk to the study. */
interface Sending {
  key: string;
  name: string;
  phase: 'looking' | 'sending' | 'waiting' | 'failed' | 'known';
  share: number;
  look: FirstLook | null;
  message: string | null;
  stop: AbortController;
}

const EVERY_MS = 800;
const AT_ONCE = 2;
const MOST_COMPARED = 8;

/** The sliced files of a study: dropped here, looked into, sent, read, and told what they are for. */
export function SlicedFiles({ studyId, marks, artefacts, ...initial }: SlicedFilesProps) {
  const [files, setFiles] = useState(initial.files);
  const [sending, setSending] = useState<readonly Sending[]>([]);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [drafts, setDrafts] = useState<ReadonlyMap<string, PurposeDraft>>(new Map());
  const { input, refresh, forget, take } = useSending({ studyId, files, setFiles, setSending });

  const drop = useDrop(take);
  const query = [...chosen].map((path) => `file=${encodeURIComponent(path)}`).join('&');
  const compare = `/studies/${studyId}/compare?${query}`;
  const open = files.filter((file) => !file.is_confirmed && file.state === 'read');
  return (
    <section
      id="sliced-files"
      aria-labelledby="sliced-title"
      className={`mt-3 min-w-0 sheet ${drop.isOver ? 'outline-2 outline-plum' : ''}`}
      {...drop.handlers}
    >
      <FilesHead
        files={files}
        open={open.length}
        chosen={chosen}
        compare={compare}
        input={input}
        take={take}
      />
      <ConfirmAll studyId={studyId} files={open} drafts={drafts} onConfirmed={setFiles} />
      {sending.length > 0 && (
        <ul aria-label="Files on their way">
          {sending.map((one) => (
            <SendingRow key={one.key} one={one} onForget={() => forget(one.key)} />
          ))}
        </ul>
      )}
      {files.length > 0 && (
        <Leaving>
          <div className="max-h-[26rem] overflow-auto" tabIndex={0} aria-label="Sliced files">
            <FileTable
              files={files}
              studyId={studyId}
              marks={marks}
              artefacts={artefacts}
              chosen={chosen}
              setChosen={setChosen}
              refresh={refresh}
              drafts={drafts}
              setDrafts={setDrafts}
            />
          </div>
        </Leaving>
      )}
    </section>
  );
}

interface FilesHeadProps {
  files: readonly SlicedSummary[];
  open: number;
  chosen: ReadonlySet<string>;
  compare: string;
  input: RefObject<HTMLInputElement | null>;
  take: (list: FileList | null) => void;
}

/** How many there are, which are compared, and where more are chosen. */
function FilesHead({ files, open, chosen, compare, input, take }: FilesHeadProps) {
  return (
    <header className="flex flex-wrap items-center justify-between gap-2 border-b border-line px-3 py-2">
      <div>
        <h2 id="sliced-title" className="font-semibold">
          Sliced files
        </h2>
        <p className="text-xs text-ink-2">
          {counted(files.length, 'file')}
          {open > 0 && ` · ${open} to be confirmed`} · drop files anywhere on this sheet, up to 500
          MB each
        </p>
      </div>
      <div className="flex gap-2">
        {chosen.size >= 2 && (
          <a className="action" href={compare}>
            Compare {chosen.size} files
          </a>
        )}
        <button type="button" className="action" onClick={() => input.current?.click()}>
          Add files…
        </button>
        <input
          ref={input}
          type="file"
          multiple
          className="sr-only"
          tabIndex={-1}
          aria-label="Sliced files"
          accept=".gcode,.gco,.g,.nc,.gz,.3mf"
          onChange={(event) => {
            take(event.target.files);
            event.target.value = '';
          }}
        />
      </div>
    </header>
  );
}

interface SendingGiven {
  studyId: string;
  files: readonly SlicedSummary[];
  setFiles: Dispatch<SetStateAction<readonly SlicedSummary[]>>;
  setSending: Dispatch<SetStateAction<readonly Sending[]>>;
}

/** Sends files, a few at once, each read on the way so that the person sees at once what is in it. */
function useSending({ studyId, files, setFiles, setSending }: SendingGiven) {
  const queue = useRef<{ file: File; key: string; stop: AbortController }[]>([]);
  const active = useRef(0);
  const input = useRef<HTMLInputElement>(null);
  const address = `/studies/${studyId}/sliced-files`;
  const isReading = files.some((file) => file.state === 'waiting' || file.state === 'reading');

  const refresh = () =>
    asItStands(() => callApi<SlicedSummary[]>('GET', address)).then(setFiles, () => undefined);
  usePolling(refresh, EVERY_MS, isReading);

  const change = (key: string, more: Partial<Sending>) =>
    setSending((known) => known.map((one) => (one.key === key ? { ...one, ...more } : one)));
  const forget = (key: string) => setSending((known) => known.filter((one) => one.key !== key));

  const send = async (file: File, key: string, stop: AbortController) => {
    try {
      const look = await lookInto(file, (share) => change(key, { share }), stop.signal);
      if (look.fault !== null) throw new Error(look.fault);
      change(key, { phase: 'sending', share: 0, look });
      const { path, isKnown } = await sendFile(
        address,
        file,
        look.sha256,
        (share, isWaiting) =>
          change(key, isWaiting ? { phase: 'waiting' } : { phase: 'sending', share }),
        stop.signal,
      );
      if (isKnown) change(key, { phase: 'known', message: `it is here already, as ${path}` });
      else forget(key);
      await refresh();
    } catch (error) {
      if (stop.signal.aborted) forget(key);
      else change(key, { phase: 'failed', message: messageOf(error) });
    }
  };
  const work = () => {
    while (active.current < AT_ONCE) {
      const next = queue.current.shift();
      if (!next) return;
      if (next.stop.signal.aborted) continue;
      active.current += 1;
      void send(next.file, next.key, next.stop).finally(() => {
        active.current -= 1;
        work();
      });
    }
  };
  const take = (list: FileList | null) => {
    const added = [...(list ?? [])].map((file, at) => ({
      file,
      key: `${Date.now()}-${at}-${file.name}`,
      stop: new AbortController(),
    }));
    queue.current.push(...added);
    setSending((known) => [
      ...known,
      ...added.map(({ file, key, stop }) => ({
        key,
        name: file.name,
        stop,
        share: 0,
        look: null,
        message: null,
        phase: 'looking' as const,
      })),
    ]);
    work();
  };
  return { input, refresh, forget, take };
}

interface FileTableProps {
  files: readonly SlicedSummary[];
  studyId: string;
  marks: SlicedFilesProps['marks'];
  artefacts: SlicedFilesProps['artefacts'];
  chosen: ReadonlySet<string>;
  setChosen: Dispatch<SetStateAction<ReadonlySet<string>>>;
  refresh: () => Promise<void | undefined>;
  drafts: ReadonlyMap<string, PurposeDraft>;
  setDrafts: Dispatch<SetStateAction<ReadonlyMap<string, PurposeDraft>>>;
}

/** Every file with what it says. */
function FileTable({
  files,
  studyId,
  marks,
  artefacts,
  chosen,
  setChosen,
  refresh,
  drafts,
  setDrafts,
}: FileTableProps) {
  return (
    <table className="w-full text-xs">
      <thead className="sticky top-0 bg-sheet">
        <tr className="border-b border-line">
          <th className="th">
            <span className="sr-only">compare</span>
          </th>
          <th className="th">file</th>
          <th className="th">for</th>
          <th className="th text-right">estimate</th>
          <th className="th text-right">model</th>
          <th className="hidden th text-right md:table-cell">filament (g)</th>
          <th className="hidden th text-right md:table-cell">asked (mm/s)</th>
          <th className="hidden th text-right md:table-cell">reached</th>
        </tr>
      </thead>
      <tbody>
        {files.map((file) => (
          <FileRow
            key={file.path}
            studyId={studyId}
            file={file}
            marks={marks}
            artefacts={artefacts}
            isChosen={chosen.has(file.path)}
            canChoose={chosen.size < MOST_COMPARED}
            onChoose={(isChosen) =>
              setChosen((known) => {
                const next = new Set(known);
                if (isChosen) next.add(file.path);
                else next.delete(file.path);
                return next;
              })
            }
            onChanged={() => void refresh()}
            draft={drafts.get(file.path) ?? NO_DRAFT}
            onDraft={(draft) => setDrafts((known) => new Map(known).set(file.path, draft))}
          />
        ))}
      </tbody>
    </table>
  );
}

const PHASES = {
  looking: 'looking into it',
  sending: 'being sent',
  waiting: 'the connection broke; the upload resumes automatically',
  failed: 'not taken',
  known: 'not sent',
};

/** What a first look at a sliced file says; what it does not know is left out. */
function firstLook(seconds: number, look: NonNullable<Sending['look']>): string {
  const { filament_mm, layers, commanded_max } = look;
  return [
    duration(seconds),
    filament_mm === null ? [] : `${fixed(filament_mm / 1000, 2)} m`,
    layers === null ? [] : counted(layers, 'layer'),
    commanded_max === null ? [] : `up to ${fixed(commanded_max, 0)} mm/s asked`,
  ]
    .flat()
    .join(', ');
}

function SendingRow({ one, onForget }: { one: Sending; onForget: () => void }) {
  const isOver = one.phase === 'failed' || one.phase === 'known';
  const { look } = one;
  return (
    <li className="flex flex-wrap items-center gap-3 border-b border-line-soft px-3 py-1.5 text-xs">
      <span className="font-mono">{one.name}</span>
      <span className={one.phase === 'failed' ? 'text-warn' : 'text-ink-2'} role="status">
        {PHASES[one.phase]}
        {one.message ? `: ${one.message}` : ''}
        {!isOver && one.phase !== 'waiting' && ` ${percent(one.share)}`}
      </span>
      {look?.time_s != null && (
        <span className="font-mono text-ink-2">first look: {firstLook(look.time_s, look)}</span>
      )}
      <svg className="block h-2 min-w-24 flex-1" aria-hidden="true">
        {!isOver && (
          <>
            <rect width="100%" height={8} fill="var(--band)" />
            <rect width={`${(100 * one.share).toFixed(1)}%`} height={8} fill="var(--plum)" />
          </>
        )}
      </svg>
      <button
        type="button"
        className="action"
        onClick={() => {
          one.stop.abort();
          onForget();
        }}
      >
        {isOver ? 'Put away' : 'Cancel'}
      </button>
    </li>
  );
}

interface FileRowProps {
  studyId: string;
  file: SlicedSummary;
  marks: readonly ContenderMark[];
  artefacts: readonly { id: string; name: string }[];
  isChosen: boolean;
  canChoose: boolean;
  onChoose: (isChosen: boolean) => void;
  onChanged: () => void;
  draft: PurposeDraft;
  onDraft: (draft: PurposeDraft) => void;
}

function FileRow(props: FileRowProps) {
  const { studyId, file, marks, artefacts, isChosen, canChoose, onChoose, onChanged } = props;
  const name = file.path.slice(file.path.lastIndexOf('/') + 1);
  const mark = marks.find((one) => one.contender_id === file.contender_id);
  const known = (value: number | null, said: (value: number) => string) =>
    value === null ? <Unknown why="not stated" /> : said(value);
  return (
    <tr className="border-b border-line-soft">
      <td className="w-8 px-2">
        <input
          type="checkbox"
          className="size-[18px]"
          aria-label={`Compare ${name}`}
          checked={isChosen}
          disabled={file.state !== 'read' || (!isChosen && !canChoose)}
          onChange={(event) => onChoose(event.target.checked)}
        />
      </td>
      <td className="px-2 py-1 font-mono">
        <a className="underline" href={`/studies/${studyId}/files/${file.path}`}>
          {name}
        </a>
        {(file.bad_line_count ?? 0) > 0 && (
          <span className="text-warn"> {counted(file.bad_line_count ?? 0, 'broken line')}</span>
        )}
      </td>
      <td className="px-2 py-1">
        {file.is_confirmed ? (
          <span className="inline-flex items-center gap-1.5">
            {mark && <Badge mark={mark} />}
            {artefacts.find((one) => one.id === file.artefact_id)?.name}
          </span>
        ) : (
          <FilePurpose
            studyId={studyId}
            file={file}
            marks={marks}
            artefacts={artefacts}
            draft={props.draft}
            onDraft={props.onDraft}
            onChanged={onChanged}
          />
        )}
      </td>
      {file.state === 'read' ? (
        <>
          <td className="px-2 text-right font-mono">{known(file.annotated_time_s, duration)}</td>
          <td className="px-2 text-right font-mono">{known(file.time_s, duration)}</td>
          <td className="hidden px-2 text-right font-mono md:table-cell">
            {known(file.filament_g, (value) => fixed(value, 1))}
          </td>
          <td className="hidden px-2 text-right font-mono md:table-cell">
            {known(file.commanded_max, (value) => fixed(value, 0))}
          </td>
          <td className="hidden px-2 text-right font-mono md:table-cell">
            {known(file.reached_max, (value) => fixed(value, 0))}
          </td>
        </>
      ) : (
        <ReadingState file={file} studyId={studyId} onChanged={onChanged} />
      )}
    </tr>
  );
}

interface ReadingStateProps {
  file: FileRowProps['file'];
  studyId: string;
  onChanged: () => void;
}

/** How far a file is that is not read yet, or why it could not be. */
function ReadingState({ file, studyId, onChanged }: ReadingStateProps) {
  return (
    <td colSpan={5} className="px-2 text-right">
      {file.state === 'failed' ? (
        <span className="text-warn">
          could not be read: it {file.message}{' '}
          <button
            type="button"
            className="underline"
            onClick={() =>
              void callApi('PATCH', `/studies/${studyId}/sliced-files/${file.path}`, {
                read: 'again',
              }).then(onChanged)
            }
          >
            read it again
          </button>{' '}
          <button
            type="button"
            className="underline"
            onClick={() =>
              void callApi('DELETE', `/studies/${studyId}/sliced-files/${file.path}`).then(
                onChanged,
              )
            }
          >
            Remove
          </button>
        </span>
      ) : (
        <span role="status">being read: {percent(file.read_share)}</span>
      )}
    </td>
  );
}

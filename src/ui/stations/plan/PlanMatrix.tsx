import { ContenderHeads } from '../../marks/ContenderHeads';
import { Fragment, useState, type SetStateAction, type Dispatch } from 'react';
import type { ContenderMark } from '../../../core/model/study';
import type { Stored } from '../../../contract/rows';
import type { SlicedSummary } from '../../../contract/sliced-files';
import { callApi, failureText } from '../../kit/request';
import { counted, duration } from '../../lib/format';
import { Leaving } from '../../kit/Leaving';
import { useSerialQueue } from '../../kit/use-serial-queue';
import { useLatest } from '../../kit/use-latest';

interface PlanMatrixProps {
  studyId: string;
  marks: readonly ContenderMark[];
  reference: string | null;
  artefacts: readonly { id: string; name: string }[];
  materials: readonly { id: string; name: string }[];
  planned: readonly Stored<'planned'>[];
  files: readonly SlicedSummary[];
  warnings: Readonly<Record<string, string>>;
}

const cellKey = (contender: string, artefact: string, material: string) =>
  `${contender} ${artefact} ${material}`;

/** Artefacts × contenders × materials: how often each is printed, and from which sliced file. */
export function PlanMatrix(props: PlanMatrixProps) {
  const { studyId, marks, reference, artefacts, materials, files, warnings } = props;
  const latest = useLatest(props.planned);
  const planned = latest.shown;
  const inTurn = useSerialQueue();
  const [material, setMaterial] = useState(() => mostPlanned(materials, props.planned));
  const [message, setMessage] = useState<string | null>(null);
  const find = (contender: string, artefact: string, rows = planned) =>
    rows.find(
      (row) =>
        row.contender_id === contender &&
        row.artefact_id === artefact &&
        row.material_id === material,
    );
  const put = async (contender: string, artefact: string, change: Record<string, unknown>) => {
    const row = find(contender, artefact, latest.read());
    const base = `/studies/${studyId}/rows/planned`;
    const address = `${base}/${[contender, artefact, material].map(encodeURIComponent).join('/')}`;
    const is = (one: Stored<'planned'>) =>
      cellKey(one.contender_id, one.artefact_id, one.material_id) ===
      cellKey(contender, artefact, material);
    try {
      setMessage(null);
      if (row && change.repeats === 0) {
        await callApi('DELETE', address, { version: row.row_version });
        latest.change((known) => known.filter((one) => !is(one)));
      } else if (row) {
        const saved = await callApi<Stored<'planned'>>('PATCH', address, {
          version: row.row_version,
          change,
        });
        latest.change((known) => known.map((one) => (is(one) ? { ...one, ...saved } : one)));
      } else if (change.repeats !== 0) {
        const added = await callApi<Stored<'planned'>>('POST', base, {
          contender_id: contender,
          artefact_id: artefact,
          material_id: material,
          repeats: 1,
          toolpath: fileFor(files, contender, artefact),
          ...change,
        });
        latest.change((known) => [...known, added]);
      }
    } catch (error) {
      setMessage(failureText(error));
    }
  };
  const keep = (...cell: Parameters<typeof put>) => inTurn(() => put(...cell));
  const total = planned.reduce((sum, row) => sum + Number(row.repeats), 0);
  return (
    <section className="min-w-0 sheet" aria-labelledby="plan-matrix">
      <PlanHead
        total={total}
        times={planned.map((row) => ({
          repeats: Number(row.repeats),
          each: timeByFile(files, row),
        }))}
        material={material}
        setMaterial={setMaterial}
        materials={materials}
        planned={planned}
      />
      {message && (
        <p role="alert" className="px-3 py-1 text-warn">
          {message}
        </p>
      )}
      <Leaving>
        <table className="w-full min-w-[720px]">
          <ContenderHeads hasNames marks={marks} reference={reference} />
          <tbody>
            {artefacts.map((artefact) => (
              <ArtefactRows
                key={artefact.id}
                artefact={artefact}
                warnings={warnings}
                marks={marks}
                material={material}
                find={find}
                files={files}
                keep={keep}
              />
            ))}
          </tbody>
        </table>
      </Leaving>
    </section>
  );
}

interface ArtefactRowsProps {
  artefact: { id: string; name: string };
  warnings: PlanMatrixProps['warnings'];
  marks: PlanMatrixProps['marks'];
  material: string;
  find: (
    contender: string,
    artefact: string,
    rows?: readonly Stored<'planned'>[],
  ) => Stored<'planned'> | undefined;
  files: PlanMatrixProps['files'];
  keep: (contender: string, artefact: string, change: Record<string, unknown>) => Promise<void>;
}

/** What is planned of one artefact. */
function ArtefactRows({
  artefact,
  warnings,
  marks,
  material,
  find,
  files,
  keep,
}: ArtefactRowsProps) {
  return (
    <Fragment>
      <tr className={warnings[artefact.id] ? 'align-top' : 'border-b border-line-soft align-top'}>
        <th scope="row" className="max-w-[220px] px-2 py-2 text-left font-medium">
          {artefact.name}
        </th>
        {marks.map((mark) => (
          <PlanCell
            key={`${mark.contender_id} ${material}`}
            label={`${artefact.name}, ${mark.label}`}
            row={find(mark.contender_id, artefact.id)}
            files={files.filter(
              (file) => file.artefact_id === artefact.id && file.contender_id === mark.contender_id,
            )}
            onKeep={(change) => void keep(mark.contender_id, artefact.id, change)}
          />
        ))}
      </tr>
      {warnings[artefact.id] && (
        <tr className="border-b border-line-soft">
          <td colSpan={marks.length + 1} className="px-2 pb-2">
            <p
              role="alert"
              className="sticky left-2 w-fit max-w-[calc(100vw-60px)] text-xs text-warn"
            >
              ≠ {warnings[artefact.id]}
            </p>
          </td>
        </tr>
      )}
    </Fragment>
  );
}

interface PlanHeadProps {
  total: number;
  /** How often each is printed, and how long once takes by its file, s; null where no file says so. */
  times: readonly { repeats: number; each: number | null }[];
  material: string;
  setMaterial: Dispatch<SetStateAction<string>>;
  materials: PlanMatrixProps['materials'];
  planned: readonly Stored<'planned'>[];
}

/** How many prints and hours, and of which material. */
/** How long a planned print takes by its own file, s; null where no file says so. */
function timeByFile(files: PlanMatrixProps['files'], row: { toolpath: string | null }) {
  const file = files.find((one) => one.path === row.toolpath);
  return file?.annotated_time_s ?? file?.time_s ?? null;
}

function PlanHead({ total, times, material, setMaterial, materials, planned }: PlanHeadProps) {
  const seconds = times.reduce((sum, { repeats, each }) => sum + repeats * (each ?? 0), 0);
  const untimed = times.reduce((sum, { repeats, each }) => sum + (each === null ? repeats : 0), 0);
  return (
    <header className="flex flex-wrap items-center justify-between gap-2 border-b border-line px-3 py-2">
      <div>
        <h2 id="plan-matrix" className="font-semibold">
          What is printed
        </h2>
        <p className="text-xs text-ink-2">
          {counted(total, 'print')}
          {seconds > 0 && ` · ${duration(seconds)} on the machines by the files’ own word`}
          {seconds > 0 && untimed > 0 && `, ${untimed} of them without a time`} · a figure is how
          many repeats; empty is none
        </p>
      </div>
      <label className="flex items-center gap-2 text-xs text-ink-2">
        in
        <select
          className="field w-auto"
          value={material}
          onChange={(event) => setMaterial(event.target.value)}
        >
          {materials.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name} ·{' '}
              {counted(
                planned
                  .filter((row) => row.material_id === one.id)
                  .reduce((sum, row) => sum + Number(row.repeats), 0),
                'print',
              )}
            </option>
          ))}
        </select>
      </label>
    </header>
  );
}

/** The material of which most is printed, the first of all where nothing is planned. */
function mostPlanned(
  materials: PlanMatrixProps['materials'],
  planned: PlanMatrixProps['planned'],
): string {
  const countOf = (id: string) =>
    planned.reduce((sum, row) => (row.material_id === id ? sum + Number(row.repeats) : sum), 0);
  const counts = materials.map((one) => ({ id: one.id, count: countOf(one.id) }));
  return counts.reduce(
    (best, one) => (one.count > best.count ? one : best),
    counts[0] ?? { id: '', count: 0 },
  ).id;
}

const fileFor = (files: readonly SlicedSummary[], contender: string, artefact: string) =>
  files.find((file) => file.contender_id === contender && file.artefact_id === artefact)?.path ??
  null;

/** A file's name without its folder and endings: there is no room for what all of them share. */
const shortName = (path: string): string =>
  path.slice(path.lastIndexOf('/') + 1).replace(/(?:\.[a-z][a-z0-9]{0,5})+$/i, '');

interface PlanCellProps {
  label: string;
  row: Stored<'planned'> | undefined;
  files: readonly SlicedSummary[];
  onKeep: (change: Record<string, unknown>) => void;
}

function PlanCell({ label, row, files, onKeep }: PlanCellProps) {
  const [text, setText] = useState<string | null>(null);
  const kept = row ? String(row.repeats) : '';
  const shown = text ?? kept;
  const isValid = /^\d{0,3}$/.test(shown.trim());
  const commit = () => {
    if (!isValid) return;
    const repeats = Number(shown.trim() || 0);
    if (repeats !== Number(kept || 0)) onKeep({ repeats });
    setText(null);
  };
  return (
    <td className="px-2 py-1.5">
      <input
        className="field w-14 text-right font-mono"
        inputMode="numeric"
        aria-label={`Repeats: ${label}`}
        aria-invalid={!isValid}
        value={shown}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit();
        }}
      />
      {row &&
        (files.length > 0 ? (
          <select
            className="mt-0.5 block min-h-[24px] w-full max-w-[140px] truncate bg-transparent text-2xs text-ink-2"
            aria-label={`Sliced file: ${label}`}
            value={row.toolpath ?? ''}
            onChange={(event) => onKeep({ toolpath: event.target.value || null })}
          >
            <option value="">no file</option>
            {files.map((file) => (
              <option key={file.path} value={file.path}>
                {shortName(file.path)}
              </option>
            ))}
          </select>
        ) : (
          <span className="block text-2xs text-ink-2">no file yet</span>
        ))}
    </td>
  );
}

import { failureText } from '../kit/request';
import { useEffect, useState, type SetStateAction, type Dispatch } from 'react';
import type { MeshSheet } from '../../core/geometry/mesh';
import { PART_DESIGNS } from '../../core/geometry/parts/designs';
import { faultsOf, usualValues, type Part, type PartDesign } from '../../core/geometry/parts/part';
import { partRows, type PartRows } from '../../core/geometry/parts/rows';
import { drawnDimensions } from '../drawing/drawn';
import { PartDrawing } from '../drawing/PartDrawing';
import { PHONE_PX, useNarrow } from '../lib/use-narrow';
import { readNumber } from '../lib/entry';
import { MeshLine } from './MeshLine';
import { saveFile } from '../kit/save-file';
import { sendArtefact, sendMesh } from './send-artefact';
import { Turnable } from './Turnable';
import { useMeshBench, type AskMesh } from './use-mesh-bench';
import type { DrawnDimension } from '../drawing/layout';

interface PartMakerProps {
  studyId: string;
}

interface Made {
  part: Part;
  sheet: MeshSheet;
  design: string;
  /** By which numbers it was made. */
  of: string;
}

const WAIT_MS = 120;

/** What is looked at on a part, in words. */
function comesWith(rows: PartRows): string {
  const counts = [
    [rows.dimensions.length, 'dimensions'],
    [rows.ladder_steps.length, 'steps of ladders'],
    [rows.zones.length, 'zones'],
    [rows.copy_places.length, 'copies, each with its place'],
  ] as const;
  const checks = rows.function_checks.map((row) => `the check “${row.check}”`);
  const said = counts.filter(([count]) => count > 0).map(([count, what]) => `${count} ${what}`);
  return [...said, ...checks].join(', ') || 'nothing to measure';
}

/** Benchmark parts made from numbers: change a number, see the part, take it into the study. */
export function PartMaker({ studyId }: PartMakerProps) {
  const isNarrow = useNarrow();
  const ask = useMeshBench();
  const [key, setKey] = useState(PART_DESIGNS[0]?.key ?? '');
  const design = PART_DESIGNS.find((one) => one.key === key) ?? PART_DESIGNS[0];
  const [typed, setTyped] = useState<Record<string, Record<string, string>>>({});
  const [made, setMade] = useState<Made | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const usual = design ? usualValues(design) : {};
  const own = typed[key] ?? {};
  const values: Record<string, number> = Object.fromEntries(
    Object.entries(usual).map(([name, value]) => {
      const entry = own[name] === undefined ? { value } : readNumber(own[name]);
      return [name, 'value' in entry ? (entry.value ?? NaN) : NaN];
    }),
  );
  const faults = design ? faultsOf(design, values) : [];
  const wanted = JSON.stringify([key, values]);
  const isWhole = faults.length === 0;

  useMaking({ ask, isWhole, wanted, setMade, setMessage });

  if (!design) return null;
  // While a number is typed the part before it stays in sight; only the finished one can be taken.
  const shown = made?.design === key && isWhole ? made : null;
  const isFresh = shown?.of === wanted;
  const rows = shown && partRows(shown.part, key);
  const drawn = rows ? drawnDimensions(rows.dimensions, rows.dimension_places) : [];
  const { save, keep } = keeperOf({
    ask,
    design,
    fresh: isFresh ? shown : null,
    setBusy,
    setMessage,
    studyId,
    values,
  });
  return (
    <div className="grid grid-cols-1 items-start gap-3 lg:grid-cols-[280px_minmax(0,1fr)]">
      <div className="grid gap-3">
        <DesignChoice chosen={key} onChoose={setKey} />
        <PartForm
          isFresh={isFresh}
          keep={keep}
          design={design}
          part={key}
          own={own}
          setTyped={setTyped}
          faults={faults}
          isBusy={isBusy}
          save={save}
          message={message}
        />
        {ask && shown && (
          <section className="sheet p-2" aria-label="Turned">
            <Turnable ask={ask} of={shown} label={design.name} />
          </section>
        )}
        {rows && (
          <p className="px-1 text-xs text-ink-2" data-mark="comes-with">
            Comes with {comesWith(rows)}.
          </p>
        )}
      </div>
      <PartSides
        shown={shown}
        drawn={drawn}
        isNarrow={isNarrow}
        design={design}
        isWhole={isWhole}
      />
    </div>
  );
}

interface MakingGiven {
  ask: AskMesh | null;
  isWhole: boolean;
  wanted: string;
  setMade: Dispatch<SetStateAction<Made | null>>;
  setMessage: Dispatch<SetStateAction<string | null>>;
}

/** Makes the part a moment after a number was typed. */
function useMaking({ ask, isWhole, wanted, setMade, setMessage }: MakingGiven) {
  useEffect(() => {
    if (!ask || !isWhole) return;
    let isStale = false;
    const [design, numbers] = JSON.parse(wanted) as [string, Record<string, number>];
    const timer = setTimeout(() => {
      ask({ ask: 'make', design, values: numbers }).then(
        (found) => !isStale && setMade({ ...found, design, of: wanted }),
        (error: Error) => !isStale && setMessage(error.message),
      );
    }, WAIT_MS);
    return () => {
      isStale = true;
      clearTimeout(timer);
    };
  }, [ask, wanted, isWhole, setMade, setMessage]);
}

interface PartSidesProps {
  shown: Made | null;
  drawn: DrawnDimension[];
  isNarrow: boolean;
  design: PartDesign;
  isWhole: boolean;
}

/** The part from its three sides. */
function PartSides({ shown, drawn, isNarrow, design, isWhole }: PartSidesProps) {
  return (
    <div className="grid min-w-0 gap-3">
      <section className="min-w-0 sheet p-3" aria-label="Drawing">
        {shown ? (
          <>
            <MeshLine sheet={shown.sheet} />
            <PartDrawing
              sides={shown.sheet.sides}
              dimensions={drawn}
              width={isNarrow ? PHONE_PX : 760}
              label={`${design.name}: front, left and top with ${drawn.length} dimensions`}
            />
          </>
        ) : (
          <p className="text-ink-2">
            {isWhole ? 'being made …' : 'not possible with these numbers'}
          </p>
        )}
      </section>
    </div>
  );
}

interface KeeperOfGiven {
  ask: AskMesh | null;
  design: PartDesign;
  /** The part as its numbers stand now; null while it is made. */
  fresh: Made | null;
  setBusy: Dispatch<SetStateAction<boolean>>;
  setMessage: Dispatch<SetStateAction<string | null>>;
  studyId: string;
  values: Record<string, number>;
}

/** Saves the part as a file, or takes it into the study. */
function keeperOf(given: KeeperOfGiven) {
  const { ask, design, fresh, setBusy, setMessage, studyId, values } = given;
  const { key } = design;
  const save = async (format: 'stl' | '3mf') => {
    if (!ask) return;
    const bytes =
      format === 'stl' ? await ask({ ask: 'stl' }) : await ask({ ask: '3mf', name: design.name });
    saveFile(
      `${key}.${format}`,
      new Uint8Array(bytes),
      format === 'stl' ? 'model/stl' : 'model/3mf',
    );
  };
  const keep = async () => {
    if (!ask || !fresh) return;
    setBusy(true);
    setMessage(null);
    try {
      const mesh = await sendMesh(studyId, `${key}.stl`, await ask({ ask: 'stl' }), true);
      const notes = design.parameters
        .map(({ key: name, name: said, unit }) => `${said} ${values[name]}${unit && ` ${unit}`}`)
        .join(', ');
      const artefact = { name: design.name, notes };
      const id = await sendArtefact(studyId, artefact, mesh.path, partRows(fresh.part, key));
      location.assign(`/studies/${studyId}/artefacts/${id}`);
    } catch (error) {
      setBusy(false);
      setMessage(failureText(error, 'The part could not be saved.'));
    }
  };
  return { save, keep };
}

interface DesignChoiceProps {
  chosen: string;
  onChoose: Dispatch<SetStateAction<string>>;
}

/** Which part is made. */
function DesignChoice({ chosen, onChoose }: DesignChoiceProps) {
  return (
    <fieldset className="sheet p-1">
      <legend className="sr-only">Part</legend>
      {PART_DESIGNS.map((one) => (
        <label
          key={one.key}
          className={
            'block cursor-pointer rounded-sm px-2 py-1.5 ' +
            `${one.key === chosen ? 'bg-plum-soft' : 'hover:bg-plum-soft'}`
          }
        >
          <span className="flex items-center gap-2 font-medium">
            <input
              type="radio"
              name="part"
              checked={one.key === chosen}
              onChange={() => onChoose(one.key)}
            />
            {one.name}
          </span>
          {one.key === chosen && <span className="block pl-5 text-xs text-ink-2">{one.about}</span>}
        </label>
      ))}
    </fieldset>
  );
}

interface PartFormProps {
  isFresh: boolean;
  keep: () => Promise<void>;
  design: PartDesign;
  part: string;
  own: Record<string, string>;
  setTyped: Dispatch<SetStateAction<Record<string, Record<string, string>>>>;
  faults: string[];
  isBusy: boolean;
  save: (format: 'stl' | '3mf') => Promise<void>;
  message: string | null;
}

/** The sizes of the part, what is wrong with them, and what can be done with it. */
function PartForm({
  isFresh,
  keep,
  design,
  part,
  own,
  setTyped,
  faults,
  isBusy,
  save,
  message,
}: PartFormProps) {
  return (
    <form
      className="grid gap-2 sheet p-3"
      aria-label="Numbers of the part"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        if (isFresh) void keep();
      }}
    >
      {design.parameters.map(
        ({ key: name, name: said, unit, lowest, highest, step, usual: from }) => (
          <label key={`${part}/${name}`} className="flex items-center justify-between gap-2">
            <span>
              {said}
              <span className="block text-2xs text-ink-2">
                {lowest} … {highest}
                {unit && ` ${unit}`}
              </span>
            </span>
            <input
              className="field w-24 text-right font-mono"
              type="number"
              min={lowest}
              max={highest}
              step={step}
              value={own[name] ?? String(from)}
              onChange={(event) =>
                setTyped((all) => ({ ...all, [part]: { ...own, [name]: event.target.value } }))
              }
            />
          </label>
        ),
      )}
      {faults.map((fault) => (
        <p key={fault} role="alert" className="text-xs text-warn">
          {fault}
        </p>
      ))}
      <div className="mt-1 flex flex-wrap gap-2">
        <button type="submit" className="action action-main" disabled={!isFresh || isBusy}>
          Add to the study
        </button>
        <button
          type="button"
          className="action"
          disabled={!isFresh}
          onClick={() => void save('stl')}
        >
          STL
        </button>
        <button
          type="button"
          className="action"
          disabled={!isFresh}
          onClick={() => void save('3mf')}
        >
          3MF
        </button>
      </div>
      {message && (
        <p role="alert" className="text-xs text-warn">
          {message}
        </p>
      )}
    </form>
  );
}

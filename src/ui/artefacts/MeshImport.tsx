import { useState } from 'react';
import type { MeshSheet } from '../../core/geometry/mesh';
import { PartDrawing } from '../drawing/PartDrawing';
import { PHONE_PX, useNarrow } from '../lib/use-narrow';
import { callApi, failureText } from '../kit/request';
import { fixed } from '../lib/format';
import { MeshLine } from './MeshLine';
import { sendArtefact, sendMesh } from './send-artefact';
import { Turnable } from './Turnable';
import { useMeshBench } from './use-mesh-bench';

interface MeshImportProps {
  studyId: string;
  /** With the largest size of their meshes, mm, where they have one. */
  artefacts: readonly { id: string; name: string; span: number | null }[];
  /** The artefact that is to have the mesh; null for a new one. */
  replaces: string | null;
}

interface Looked {
  name: string;
  bytes: Uint8Array;
  sheet: MeshSheet;
  /** What the numbers of the file were multiplied by to be mm. */
  scale: number;
}

const UNITS = [
  { name: 'millimetres', scale: 1 },
  { name: 'centimetres', scale: 10 },
  { name: 'inches', scale: 25.4 },
  { name: 'millimetres, made larger by 25.4', scale: 1 / 25.4 },
] as const;

/** Ratios at which the same part stands in another unit. */
const MIXED_UNITS = [25.4, 1 / 25.4, 10, 1 / 10];

const spanOf = ({ facts }: MeshSheet): number => Math.max(...facts.bbox_mm.size);

/** A mesh from elsewhere: looked at, its unit asked where the file does not say, then kept. */
export function MeshImport({ studyId, artefacts, replaces }: MeshImportProps) {
  const isNarrow = useNarrow();
  const ask = useMeshBench();
  const [looked, setLooked] = useState<Looked | null>(null);
  const [name, setName] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const [twin, setTwin] = useState<string | null>(null);
  // The unit that is chosen, shown at once; the mesh follows when it has been scaled.
  const [asked, setAsked] = useState<number | null>(null);
  const target = artefacts.find(({ id }) => id === replaces);

  const guarded = async (work: () => Promise<void>) => {
    setBusy(true);
    setMessage(null);
    try {
      await work();
    } catch (error) {
      setMessage(failureText(error, 'This did not work.'));
    }
    setBusy(false);
  };
  const look = (file: File) =>
    guarded(async () => {
      if (!ask) return;
      setLooked(null);
      setTwin(null);
      if (file.size > 64 * 1024 * 1024) throw new Error('The mesh is over 64 MB: make it coarser.');
      const bytes = new Uint8Array(await file.arrayBuffer());
      const { sheet } = await ask({ ask: 'read', name: file.name, bytes });
      setLooked({ name: file.name, bytes, sheet, scale: 1 });
      setName(file.name.replace(/\.[^.]+$/, '').replace(/[_-]+/g, ' '));
    });
  const scaleTo = (scale: number) =>
    guarded(async () => {
      if (!ask || !looked) return;
      setAsked(scale);
      try {
        const { sheet } = await ask({ ask: 'scale', by: scale / looked.scale });
        setLooked({ ...looked, sheet, scale });
      } finally {
        setAsked(null);
      }
    });
  const finish = async (mesh: string) => {
    if (target) {
      const path = `/studies/${studyId}/artefacts/${target.id}/mesh`;
      const { artefact_id } = await callApi<{ artefact_id: string }>('POST', path, { mesh });
      location.assign(`/studies/${studyId}/artefacts/${artefact_id}`);
      return;
    }
    const id = await sendArtefact(studyId, { name: name.trim(), notes: null }, mesh, {});
    location.assign(`/studies/${studyId}/artefacts/${id}`);
  };
  const keep = (evenIfSame: boolean) =>
    guarded(async () => {
      if (!ask || !looked) return;
      const isAsItWas = looked.scale === 1;
      const bytes = isAsItWas ? looked.bytes : await ask({ ask: 'stl' });
      const name = isAsItWas ? looked.name : 'part.stl';
      const { path, sameAs } = await sendMesh(studyId, name, bytes, evenIfSame);
      if (path === null) setTwin(sameAs);
      else await finish(path);
    });
  const isDoubtful = looked?.sheet.facts.notes.some((note) => /inches|25\.4/.test(note)) ?? false;
  const ratio = looked && target?.span ? spanOf(looked.sheet) / target.span : 1;
  const isOtherUnit = MIXED_UNITS.some((one) => Math.abs(ratio / one - 1) < 0.02);
  return (
    <div className="grid grid-cols-1 items-start gap-3 lg:grid-cols-[320px_minmax(0,1fr)]">
      <div className="grid gap-3 sheet p-3">
        {target && (
          <p>
            A new mesh for <b>{target.name}</b>. Where it was printed already, this becomes a new
            version beside it: results do not mix.
          </p>
        )}
        <label className="block">
          Mesh
          <input
            type="file"
            className="mt-1 block w-full text-xs"
            accept=".stl,.obj,.3mf"
            disabled={!ask || isBusy}
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) void look(file);
            }}
          />
        </label>
        {looked && looked.sheet.facts.unit === null && (
          <fieldset className={isDoubtful || isOtherUnit ? 'rounded-sm bg-warn-soft p-2' : ''}>
            <legend className="text-xs text-ink-2">
              {isDoubtful ? 'Its size is doubtful. ' : ''}The file does not say its unit:
            </legend>
            {UNITS.map(({ name: unit, scale }) => (
              <label key={unit} className="flex items-center gap-2">
                <input
                  type="radio"
                  name="unit"
                  checked={(asked ?? looked.scale) === scale}
                  disabled={isBusy}
                  onChange={() => void scaleTo(scale)}
                />
                {unit}
                <span className="ml-auto font-mono text-xs text-ink-2">
                  {looked.sheet.facts.bbox_mm.size
                    .map((value) => fixed((value * scale) / looked.scale, 1))
                    .join(' × ')}{' '}
                  mm
                </span>
              </label>
            ))}
          </fieldset>
        )}
        {isOtherUnit && (
          <p role="alert" className="text-xs text-warn">
            This is {fixed(ratio, ratio < 1 ? 3 : 1)} times the size of the present mesh: is it in
            another unit?
          </p>
        )}
        {looked && !target && (
          <label className="block">
            Name
            <input
              className="mt-1 field"
              value={name}
              onChange={(event) => setName(event.target.value)}
            />
          </label>
        )}
        {looked && !twin && (
          <button
            type="button"
            className="justify-self-start action-main"
            disabled={isBusy || (!target && name.trim() === '')}
            onClick={() => void keep(false)}
          >
            {target ? 'Give it this mesh' : 'Add to the study'}
          </button>
        )}
        {twin && (
          <p role="alert" className="text-xs">
            This is the same solid as{' '}
            <a href={`/studies/${studyId}/artefacts/${twin}`}>
              {artefacts.find(({ id }) => id === twin)?.name ?? twin}
            </a>
            : every vertex within 0.001 mm.{' '}
            <button type="button" className="text-plum underline" onClick={() => void keep(true)}>
              Add it all the same
            </button>
          </p>
        )}
        {ask && looked && <Turnable ask={ask} of={looked} label={looked.name} />}
        {isBusy && <p role="status">working …</p>}
        {message && (
          <p role="alert" className="text-warn">
            {message}
          </p>
        )}
      </div>
      {looked && (
        <div className="grid min-w-0 gap-3">
          <section className="min-w-0 sheet p-3" aria-label="Drawing">
            <MeshLine sheet={looked.sheet} />
            <PartDrawing
              sides={looked.sheet.sides}
              dimensions={[]}
              width={isNarrow ? PHONE_PX : 760}
              label={`${looked.name}: front, left and top`}
            />
          </section>
        </div>
      )}
    </div>
  );
}

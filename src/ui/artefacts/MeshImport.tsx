import type { MeshSheet } from '../../core/geometry/mesh';
import { PartDrawing } from '../drawing/PartDrawing';
import { PHONE_PX, useNarrow } from '../lib/use-narrow';
import { fixed } from '../lib/format';
import { MeshLine } from './MeshLine';
import { Turnable } from './Turnable';
import { useMeshBench, type AskMesh } from './use-mesh-bench';
import { useMeshImport, type Looked, type MeshImportProps } from './use-mesh-import';

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
  const mesh = useMeshImport({ artefacts, replaces, ask, studyId });
  const { looked, target } = mesh;
  const isDoubtful = looked?.sheet.facts.notes.some((note) => /inches|25\.4/.test(note)) ?? false;
  const ratio = looked && target?.span ? spanOf(looked.sheet) / target.span : 1;
  const isOtherUnit = MIXED_UNITS.some((one) => Math.abs(ratio / one - 1) < 0.02);
  return (
    <div className="grid grid-cols-1 items-start gap-3 lg:grid-cols-[320px_minmax(0,1fr)]">
      <div className="grid gap-3 sheet p-3">
        {target && <ReplacedMesh target={target} />}
        <MeshFile ask={ask} mesh={mesh} />
        {looked && looked.sheet.facts.unit === null && (
          <UnitChoice
            isDoubtful={isDoubtful}
            isOtherUnit={isOtherUnit}
            mesh={mesh}
            looked={looked}
          />
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
              value={mesh.name}
              onChange={(event) => mesh.setName(event.target.value)}
            />
          </label>
        )}
        {looked && !mesh.twin && (
          <button
            type="button"
            className="justify-self-start action-main"
            disabled={mesh.isBusy || (!target && mesh.name.trim() === '')}
            onClick={() => void mesh.keep(false)}
          >
            {target ? 'Give it this mesh' : 'Add to the study'}
          </button>
        )}
        {mesh.twin && (
          <p role="alert" className="text-xs">
            This is the same solid as{' '}
            <a href={`/studies/${studyId}/artefacts/${mesh.twin}`}>
              {artefacts.find(({ id }) => id === mesh.twin)?.name ?? mesh.twin}
            </a>
            : every vertex within 0.001 mm.{' '}
            <button
              type="button"
              className="text-plum underline"
              onClick={() => void mesh.keep(true)}
            >
              Add it all the same
            </button>
          </p>
        )}
        {ask && looked && <Turnable ask={ask} of={looked} label={looked.name} />}
        {mesh.isBusy && <p role="status">working …</p>}
        {mesh.message && (
          <p role="alert" className="text-warn">
            {mesh.message}
          </p>
        )}
      </div>
      {looked && (
        <div className="grid min-w-0 gap-3">
          <MeshDrawing looked={looked} isNarrow={isNarrow} />
        </div>
      )}
    </div>
  );
}

interface MeshFileProps {
  ask: AskMesh | null;
  mesh: ReturnType<typeof useMeshImport>;
}

/** The file that the mesh comes from. */
function MeshFile({ ask, mesh }: MeshFileProps) {
  return (
    <label className="block">
      Mesh
      <input
        type="file"
        className="mt-1 block w-full text-xs"
        accept=".stl,.obj,.3mf"
        disabled={!ask || mesh.isBusy}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) void mesh.look(file);
        }}
      />
    </label>
  );
}

interface ReplacedMeshProps {
  target: { id: string; name: string; span: number | null };
}

/** What a new mesh means for an artefact that was printed. */
function ReplacedMesh({ target }: ReplacedMeshProps) {
  return (
    <p>
      A new mesh for <b>{target.name}</b>. Where it was printed already, this becomes a new version
      beside it: results do not mix.
    </p>
  );
}

interface MeshDrawingProps {
  looked: Looked;
  isNarrow: boolean;
}

/** The mesh from its three sides. */
function MeshDrawing({ looked, isNarrow }: MeshDrawingProps) {
  return (
    <section className="min-w-0 sheet p-3" aria-label="Drawing">
      <MeshLine sheet={looked.sheet} />
      <PartDrawing
        sides={looked.sheet.sides}
        dimensions={[]}
        width={isNarrow ? PHONE_PX : 760}
        label={`${looked.name}: front, left and top`}
      />
    </section>
  );
}

interface UnitChoiceProps {
  isDoubtful: boolean;
  isOtherUnit: boolean;
  mesh: ReturnType<typeof useMeshImport>;
  looked: Looked;
}

/** The unit of a file that does not say its own. */
function UnitChoice({ isDoubtful, isOtherUnit, mesh, looked }: UnitChoiceProps) {
  return (
    <fieldset className={isDoubtful || isOtherUnit ? 'rounded-sm bg-warn-soft p-2' : ''}>
      <legend className="text-xs text-ink-2">
        {isDoubtful ? 'Its size is doubtful. ' : ''}The file does not say its unit:
      </legend>
      {UNITS.map(({ name: unit, scale }) => (
        <label key={unit} className="flex items-center gap-2">
          <input
            type="radio"
            name="unit"
            checked={(mesh.asked ?? looked.scale) === scale}
            disabled={mesh.isBusy}
            onChange={() => void mesh.scaleTo(scale)}
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
  );
}

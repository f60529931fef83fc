import { useEffect, useState } from 'react';
import type { MeshSheet } from '../../core/geometry/mesh';
import type { Stored } from '../../data';
import type { ArtefactData } from '../../server/artefacts/page';
import { drawnDimensions } from '../drawing/drawn';
import { PartDrawing } from '../drawing/PartDrawing';
import { PHONE_PX, useNarrow } from '../lib/use-narrow';
import { callApi, failureText } from '../kit/request';
import { fixed, signed } from '../lib/format';
import { MeshLine } from './MeshLine';
import { NewDimension } from './NewDimension';
import { SectionLook } from './SectionLook';
import { NewZone, ZoneDraft, type DrawnZone } from './NewZone';
import { Pickable, type Picked } from './Picking';
import { Turnable } from './Turnable';
import { useMeshBench } from './use-mesh-bench';
import { ZoneMarks } from './ZoneMarks';
import { Leaving } from '../kit/Leaving';

interface ArtefactSheetProps extends ArtefactData {
  studyId: string;
}

/** An artefact on the drafting table: three sides, what is measured on it, where. */
export function ArtefactSheet(props: ArtefactSheetProps) {
  const { studyId, artefact, sheet } = props;
  const artefactId = String(artefact.artefact_id);
  const isNarrow = useNarrow();
  const [dimensions, setDimensions] = useState(props.dimensions);
  const [places, setPlaces] = useState(props.dimensionPlaces);
  const [retired, setRetired] = useState<ReadonlySet<string>>(() => new Set(props.retired));
  const [present, setPresent] = useState<string | null>(null);
  const [picked, setPicked] = useState<Picked>([]);
  const [isSetting, setSetting] = useState(false);
  const [message, setMessage] = useState<string | null>(null);
  const [drawnZone, setDrawnZone] = useState<DrawnZone | null>(null);
  const inUse = dimensions.filter((row) => !retired.has(String(row.dimension_id)));

  const choosePlace = (id: string) => {
    const isRound = sheet?.places.rounds.some((round) => round.id === id) ?? false;
    const holdsRound = sheet?.places.rounds.some((round) => round.id === picked[0]) ?? false;
    if (isRound || holdsRound || picked.length !== 1 || picked[0] === id) setPicked([id]);
    else setPicked([...picked, id]);
  };
  const guarded = async (work: () => Promise<string>) => {
    try {
      setMessage(await work());
    } catch (error) {
      setMessage(failureText(error, 'This did not work.'));
    }
  };
  const pathOf = (table: string, id: string) =>
    `/studies/${studyId}/rows/${table}/${artefactId}/${encodeURIComponent(id)}`;
  /** What is taken out is what stands there now: its version is read at the last moment. */
  const remove = async (path: string) => {
    const { row_version } = await callApi<{ row_version: number }>('GET', path);
    return callApi<{ is_retired: true } | undefined>('DELETE', path, { version: row_version });
  };
  const takeOut = (row: Stored<'dimensions'>) =>
    guarded(async () => {
      const id = String(row.dimension_id);
      if ((await remove(pathOf('dimensions', id)))?.is_retired) {
        setRetired((all) => new Set(all).add(id));
        return `${String(row.name)} was measured: it is retired. Its readings stay, and leave the results.`;
      }
      setDimensions((all) => all.filter((one) => one !== row));
      return `${String(row.name)} is taken out.`;
    });
  const bringBack = (row: Stored<'dimensions'>) =>
    guarded(async () => {
      const id = String(row.dimension_id);
      await remove(pathOf('retired_dimensions', id));
      setRetired((all) => new Set([...all].filter((one) => one !== id)));
      return `${String(row.name)} is measured again, and its readings count.`;
    });
  return (
    <div className="grid grid-cols-1 items-start gap-3 xl:grid-cols-[minmax(0,1fr)_400px]">
      <div className="grid min-w-0 gap-3">
        <section className="min-w-0 sheet p-3" aria-label="Drawing">
          {sheet ? (
            <>
              <MeshLine sheet={sheet} />
              <PartDrawing
                sides={sheet.sides}
                dimensions={isSetting ? [] : drawnDimensions(inUse, places)}
                present={present}
                width={isNarrow ? PHONE_PX : 700}
                onChoose={setPresent}
                over={(side, unit) => (
                  <>
                    <ZoneMarks {...props} side={side} unit={unit} />
                    {drawnZone && (
                      <ZoneDraft
                        side={side}
                        unit={unit}
                        box={sheet.sides[side].box}
                        drawn={drawnZone}
                        onDrawn={setDrawnZone}
                      />
                    )}
                    {isSetting && (
                      <Pickable
                        side={side}
                        unit={unit}
                        places={sheet.places}
                        picked={picked}
                        onPick={choosePlace}
                      />
                    )}
                  </>
                )}
                label={`${String(artefact.name)}: front, left and top with its dimensions`}
              />
            </>
          ) : (
            <p className="unknown p-6 text-center text-ink-2">
              No mesh.{' '}
              <a href={`/studies/${studyId}/artefacts/import?for=${artefactId}`}>Give it one</a>,
              and the bench shows where to measure.
            </p>
          )}
        </section>
      </div>
      <div className="grid min-w-0 gap-3">
        <section className="min-w-0 sheet" aria-label="Dimensions">
          <header className="flex items-center justify-between gap-2 border-b border-line px-3 py-2">
            <h2 className="font-semibold">Dimensions</h2>
            {sheet && (
              <button
                type="button"
                className="action"
                aria-pressed={isSetting}
                onClick={() => {
                  setSetting(!isSetting);
                  setPicked([]);
                }}
              >
                {isSetting ? 'Done' : 'Set a dimension'}
              </button>
            )}
          </header>
          {isSetting && sheet && (
            <NewDimension
              studyId={studyId}
              artefactId={artefactId}
              places={sheet.places}
              picked={picked}
              onPick={setPicked}
              onAdded={(dimension, place) => {
                setDimensions((all) => [...all, dimension]);
                setPlaces((all) => [...all, place]);
                setMessage(`${String(dimension.name)} is set.`);
              }}
            />
          )}
          <p role="status" className="px-3 text-xs text-ink-2">
            {message}
          </p>
          <Leaving>
            <table className="w-full">
              <thead>
                <tr className="border-b border-line">
                  <th className="th">dimension</th>
                  <th className="th text-right">nominal</th>
                  <th className="th text-right">limits</th>
                  <th className="th">kind</th>
                  <th className="th">
                    <span className="sr-only">take out</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {dimensions.map((row) => {
                  const id = String(row.dimension_id);
                  const isRetired = retired.has(id);
                  return (
                    <tr
                      key={id}
                      className={
                        `border-b border-line-soft ${present === id ? 'bg-plum-soft' : ''} ` +
                        `${isRetired ? 'text-ink-2' : ''}`
                      }
                    >
                      <th scope="row" className="p-0 text-left font-normal">
                        <button
                          type="button"
                          className="block w-full px-2 py-1 text-left hover:bg-plum-soft"
                          aria-pressed={present === id}
                          onClick={() => setPresent(present === id ? null : id)}
                        >
                          {row.name}
                          {isRetired && ' · retired'}
                        </button>
                      </th>
                      <td className="px-2 text-right font-mono">
                        {fixed(Number(row.nominal_mm), 2)}
                      </td>
                      <td className="px-2 text-right font-mono whitespace-nowrap">
                        <Limits lower={row.lower_tol_mm} upper={row.upper_tol_mm} />
                      </td>
                      <td className="px-2 text-xs text-ink-2">
                        {row.kind}
                        {row.axis !== 'none' && ` ${String(row.axis)}`}
                      </td>
                      <td className="px-1 text-right">
                        {isRetired ? (
                          <button
                            type="button"
                            className="px-1 text-xs text-plum underline"
                            aria-label={`Bring ${String(row.name)} back`}
                            onClick={() => void bringBack(row)}
                          >
                            bring back
                          </button>
                        ) : (
                          <button
                            type="button"
                            className="px-1 text-plum"
                            aria-label={`Take ${String(row.name)} out`}
                            onClick={() => void takeOut(row)}
                          >
                            ×
                          </button>
                        )}
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </Leaving>
          {dimensions.length === 0 && <p className="px-3 py-2 text-ink-2">none yet</p>}
        </section>
        {sheet && (
          <>
            <section className="min-w-0 sheet" aria-label="New zone">
              <NewZone
                studyId={studyId}
                artefactId={artefactId}
                drawn={drawnZone}
                onDrawn={setDrawnZone}
              />
            </section>
            <section className="sheet p-2" aria-label="Turned">
              <TurnedMesh
                studyId={studyId}
                artefactId={artefactId}
                name={String(artefact.name)}
                sheet={sheet}
              />
            </section>
          </>
        )}
      </div>
    </div>
  );
}

function Limits({ lower, upper }: { lower: unknown; upper: unknown }) {
  if (typeof lower !== 'number' && typeof upper !== 'number') return <>none</>;
  if (typeof lower === 'number' && lower === -Number(upper)) return <>± {fixed(-lower, 2)}</>;
  const side = (value: unknown) => (typeof value === 'number' ? signed(value, 2) : '…');
  return (
    <>
      {side(lower)} {side(upper)}
    </>
  );
}

interface TurnedMeshProps {
  studyId: string;
  artefactId: string;
  name: string;
  sheet: MeshSheet;
}

/** The mesh of the artefact, fetched to be turned and cut. */
function TurnedMesh({ studyId, artefactId, name, sheet }: TurnedMeshProps) {
  const ask = useMeshBench();
  const [read, setRead] = useState<object | null>(null);
  useEffect(() => {
    if (!ask) return;
    const path = `/api/v1/studies/${studyId}/artefacts/${artefactId}/mesh`;
    fetch(path)
      .then(async (response) => {
        if (!response.ok) return;
        const bytes = new Uint8Array(await response.arrayBuffer());
        setRead(await ask({ ask: 'read', name: 'part.stl', bytes }));
      })
      .catch(() => setRead(null));
  }, [ask, studyId, artefactId]);
  if (!ask || !read) return <p className="p-2 text-ink-2">…</p>;
  return (
    <>
      <Turnable ask={ask} of={read} label={name} />
      <SectionLook ask={ask} sheet={sheet} name={name} />
    </>
  );
}

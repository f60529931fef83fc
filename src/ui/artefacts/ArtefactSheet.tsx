import { useEffect, useState, type SetStateAction, type Dispatch } from 'react';
import type { MeshSheet } from '../../core/geometry/mesh';
import type { Stored } from '../../contract/rows';
import { drawnDimensions } from '../drawing/drawn';
import { PartDrawing } from '../drawing/PartDrawing';
import { PHONE_PX, useNarrow } from '../lib/use-narrow';
import { callApi, failureText } from '../kit/request';
import { MeshLine } from './MeshLine';
import { SectionLook } from './SectionLook';
import { NewZone, ZoneDraft, type DrawnZone } from './NewZone';
import { Pickable, type Picked } from './Picking';
import { Turnable } from './Turnable';
import { useMeshBench } from './use-mesh-bench';
import { ZoneMarks } from './ZoneMarks';
import { Dimensions, type ArtefactSheetProps } from './Dimensions';

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

  const choosePlace = choosingPlace(sheet, picked, setPicked);
  const { takeOut, bringBack } = useRetiring({
    setMessage,
    studyId,
    artefactId,
    setRetired,
    setDimensions,
  });
  return (
    <div className="grid grid-cols-1 items-start gap-3 xl:grid-cols-[minmax(0,1fr)_400px]">
      <div className="grid min-w-0 gap-3">
        <Drawing
          sheet={sheet}
          isSetting={isSetting}
          inUse={inUse}
          places={places}
          present={present}
          isNarrow={isNarrow}
          setPresent={setPresent}
          props={props}
          drawnZone={drawnZone}
          setDrawnZone={setDrawnZone}
          picked={picked}
          choosePlace={choosePlace}
          artefact={artefact}
          studyId={studyId}
          artefactId={artefactId}
        />
      </div>
      <div className="grid min-w-0 gap-3">
        <Dimensions
          sheet={sheet}
          isSetting={isSetting}
          setSetting={setSetting}
          setPicked={setPicked}
          studyId={studyId}
          artefactId={artefactId}
          picked={picked}
          setDimensions={setDimensions}
          setPlaces={setPlaces}
          setMessage={setMessage}
          message={message}
          dimensions={dimensions}
          retired={retired}
          present={present}
          setPresent={setPresent}
          bringBack={bringBack}
          takeOut={takeOut}
        />
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

/** What picking a place of the drawing does: one place, or two for a length. */
function choosingPlace(
  sheet: ArtefactSheetProps['sheet'],
  picked: Picked,
  setPicked: Dispatch<SetStateAction<Picked>>,
) {
  const choosePlace = (id: string) => {
    const isRound = sheet?.places.rounds.some((round) => round.id === id) ?? false;
    const holdsRound = sheet?.places.rounds.some((round) => round.id === picked[0]) ?? false;
    if (isRound || holdsRound || picked.length !== 1 || picked[0] === id) setPicked([id]);
    else setPicked([...picked, id]);
  };
  return choosePlace;
}

interface RetiringGiven {
  setMessage: Dispatch<SetStateAction<string | null>>;
  studyId: string;
  artefactId: string;
  setRetired: Dispatch<SetStateAction<ReadonlySet<string>>>;
  setDimensions: Dispatch<SetStateAction<Stored<'dimensions'>[]>>;
}

/** Takes a dimension out and brings it back; one that was measured is retired. */
function useRetiring({
  setMessage,
  studyId,
  artefactId,
  setRetired,
  setDimensions,
}: RetiringGiven) {
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
  return { takeOut, bringBack };
}

interface DrawingProps {
  sheet: ArtefactSheetProps['sheet'];
  isSetting: boolean;
  inUse: Stored<'dimensions'>[];
  places: Stored<'dimension_places'>[];
  present: string | null;
  isNarrow: boolean;
  setPresent: Dispatch<SetStateAction<string | null>>;
  props: ArtefactSheetProps;
  drawnZone: DrawnZone | null;
  setDrawnZone: Dispatch<SetStateAction<DrawnZone | null>>;
  picked: Picked;
  choosePlace: (id: string) => void;
  artefact: ArtefactSheetProps['artefact'];
  studyId: string;
  artefactId: string;
}

/** The part from its sides, with dimensions and zones, or how to come by a mesh. */
function Drawing({
  sheet,
  isSetting,
  inUse,
  places,
  present,
  isNarrow,
  setPresent,
  props,
  drawnZone,
  setDrawnZone,
  picked,
  choosePlace,
  artefact,
  studyId,
  artefactId,
}: DrawingProps) {
  return (
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
          <a href={`/studies/${studyId}/artefacts/import?for=${artefactId}`}>Give it one</a>, and
          the bench shows where to measure.
        </p>
      )}
    </section>
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

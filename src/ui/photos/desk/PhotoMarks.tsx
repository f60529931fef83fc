import { nearest } from '../../kit/event-target';
import {
  useEffect,
  useRef,
  useState,
  type SetStateAction,
  type RefObject,
  type Dispatch,
} from 'react';
import {
  register,
  RegistrationError,
  type Mark,
  type Registration,
  type ViewBox,
} from '../../../core/measures/image';
import { VIEW_NAMES, type Drawing } from '../../../core/geometry/mesh';
import type { Proposal, ShownPhoto } from '../../../contract/photos';
import { callApi, failureText } from '../../kit/request';
import { fixed } from '../../lib/format';
import { MarkDrawing, MarksHead, MarkedPhoto, type PhotoMarksProps } from './MarkedPhoto';

/** Marks on a photo: proposed or set by hand, dragged, moved by arrows under a loupe, and kept. */
export function PhotoMarks({ studyId, photo, views, onKeep }: PhotoMarksProps) {
  const [marks, setMarks] = useState<readonly Mark[]>(photo.marks);
  const [chosen, setChosen] = useState(0);
  const [waiting, setWaiting] = useState<{ x: number; y: number } | null>(null);
  const [note, setNote] = useState('');
  const frame = useRef<SVGSVGElement>(null);
  const dragged = useRef<number | null>(null);
  const { width, height, drawing, box } = drawingOf(photo, views);
  const isChanged = JSON.stringify(marks) !== JSON.stringify(photo.marks);
  const unit = Math.max(width, height) / 160;

  const [registration, fault] = registrationOf(marks, box);
  const pixelAt = (event: { clientX: number; clientY: number }) => {
    const rect = frame.current?.getBoundingClientRect();
    if (!rect) return null;
    return {
      u_px: ((event.clientX - rect.left) / rect.width) * width,
      v_px: ((event.clientY - rect.top) / rect.height) * height,
    };
  };
  const move = (at: number, to: { u_px: number; v_px: number }) =>
    setMarks((known) => known.map((mark, place) => (place === at ? { ...mark, ...to } : mark)));
  const { propose, onPhoto } = useMarkHands({
    setNote,
    studyId,
    photo,
    setMarks,
    setChosen,
    marks,
    chosen,
    move,
    pixelAt,
    dragged,
    waiting,
    setWaiting,
  });
  const mark = marks[chosen];
  return (
    <MarksSheet
      propose={propose}
      drawing={drawing}
      isChanged={isChanged}
      marks={marks}
      registration={registration}
      onKeep={onKeep}
      setNote={setNote}
      setMarks={setMarks}
      note={note}
      fault={fault}
      frame={frame}
      waiting={waiting}
      width={width}
      height={height}
      photo={photo}
      onPhoto={onPhoto}
      dragged={dragged}
      pixelAt={pixelAt}
      move={move}
      studyId={studyId}
      unit={unit}
      setChosen={setChosen}
      chosen={chosen}
      mark={mark}
      box={box}
      setWaiting={setWaiting}
    />
  );
}

interface MarksSheetProps {
  propose: () => void;
  drawing: Drawing | undefined;
  isChanged: boolean;
  marks: readonly Mark[];
  registration: Registration | null;
  onKeep: PhotoMarksProps['onKeep'];
  setNote: Dispatch<SetStateAction<string>>;
  setMarks: Dispatch<SetStateAction<readonly Mark[]>>;
  note: string;
  fault: `${string}.` | null;
  frame: RefObject<SVGSVGElement | null>;
  waiting: { x: number; y: number } | null;
  width: number;
  height: number;
  photo: ShownPhoto;
  onPhoto: (event: React.MouseEvent) => void;
  dragged: RefObject<number | null>;
  pixelAt: (event: { clientX: number; clientY: number }) => { u_px: number; v_px: number } | null;
  move: (at: number, to: { u_px: number; v_px: number }) => void;
  studyId: string;
  unit: number;
  setChosen: Dispatch<SetStateAction<number>>;
  chosen: number;
  mark: Mark | undefined;
  box: ViewBox | null;
  setWaiting: Dispatch<SetStateAction<{ x: number; y: number } | null>>;
}

/** The photo with its marks, and the drawing beside it. */
function MarksSheet({
  propose,
  drawing,
  isChanged,
  marks,
  registration,
  onKeep,
  setNote,
  setMarks,
  note,
  fault,
  frame,
  waiting,
  width,
  height,
  photo,
  onPhoto,
  dragged,
  pixelAt,
  move,
  studyId,
  unit,
  setChosen,
  chosen,
  mark,
  box,
  setWaiting,
}: MarksSheetProps) {
  return (
    <section aria-label="Marks" className="sheet p-3">
      <MarksHead
        propose={propose}
        drawing={drawing}
        isChanged={isChanged}
        marks={marks}
        registration={registration}
        onKeep={onKeep}
        setNote={setNote}
        setMarks={setMarks}
        note={note}
      />
      <p className={`mb-2 text-xs ${fault ? 'text-warn' : 'text-ink-2'}`} role="status">
        {fault ??
          (registration
            ? describeRegistration(registration, marks.length)
            : 'No marks yet: find the part, or click a corner of the drawing and then the same corner on the photo.')}
      </p>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-2 md:grid-cols-[minmax(0,5fr)_minmax(180px,2fr)]">
        <MarkedPhoto
          frame={frame}
          waiting={waiting}
          width={width}
          height={height}
          photo={photo}
          marks={marks}
          onPhoto={onPhoto}
          dragged={dragged}
          pixelAt={pixelAt}
          move={move}
          studyId={studyId}
          registration={registration}
          drawing={drawing}
          unit={unit}
          setChosen={setChosen}
          chosen={chosen}
        />
        <MarkDrawing
          mark={mark}
          studyId={studyId}
          photo={photo}
          chosen={chosen}
          drawing={drawing}
          box={box}
          marks={marks}
          waiting={waiting}
          setWaiting={setWaiting}
        />
      </div>
    </section>
  );
}

/** The size of the photo, and the drawing of its view. */
function drawingOf(
  photo: ShownPhoto,
  views: Record<'front' | 'top' | 'left' | 'right' | 'back' | 'bottom', Drawing> | undefined,
) {
  const width = photo.width ?? 1;
  const height = photo.height ?? 1;
  const name = VIEW_NAMES.find((one) => one === photo.filed?.view);
  const drawing = name && views?.[name];
  const box: ViewBox | null = drawing
    ? {
        x: drawing.box.left,
        y: -(drawing.box.top + drawing.box.height),
        w: drawing.box.width,
        h: drawing.box.height,
      }
    : null;
  return { width, height, drawing, box };
}

interface MarkHandsGiven {
  setNote: Dispatch<SetStateAction<string>>;
  studyId: string;
  photo: ShownPhoto;
  setMarks: Dispatch<SetStateAction<readonly Mark[]>>;
  setChosen: Dispatch<SetStateAction<number>>;
  marks: readonly Mark[];
  chosen: number;
  move: (at: number, to: { u_px: number; v_px: number }) => void;
  pixelAt: (event: { clientX: number; clientY: number }) => { u_px: number; v_px: number } | null;
  dragged: RefObject<number | null>;
  waiting: { x: number; y: number } | null;
  setWaiting: Dispatch<SetStateAction<{ x: number; y: number } | null>>;
}

/** How well marks register a photo: scale, tilt, misfit. */
function describeRegistration(
  { px_per_mm, tilt_deg, misfit_mm }: Registration,
  count: number,
): string {
  const parts = [
    `${count} marks`,
    `${fixed(px_per_mm, 1)} px/mm`,
    `tilted by ${fixed(tilt_deg, 0)}°`,
    ...(misfit_mm === null ? [] : [`misfit ${fixed(misfit_mm, 2)} mm`]),
  ];
  const isDoubtful = tilt_deg > 35;
  return parts.join(' · ') + (isDoubtful ? ': check that it is this part and this view' : '');
}

/** What hands do with the marks: propose them, move one by keys, set one by a click. */
function useMarkHands({
  setNote,
  studyId,
  photo,
  setMarks,
  setChosen,
  marks,
  chosen,
  move,
  pixelAt,
  dragged,
  waiting,
  setWaiting,
}: MarkHandsGiven) {
  const propose = () => {
    setNote('looking for the part …');
    const address = `/studies/${studyId}/photos/marks?path=${encodeURIComponent(photo.path)}`;
    callApi<Proposal>('GET', address).then(
      (proposal) => {
        setMarks(proposal.marks);
        setChosen(0);
        setNote(describeProposal(proposal));
      },
      (error: unknown) => setNote(failureText(error)),
    );
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (nearest(event, 'input, select, textarea, dialog')) return;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      const step = event.shiftKey ? 10 : 1;
      const by: Record<string, readonly [number, number]> = {
        ArrowLeft: [-step, 0],
        ArrowRight: [step, 0],
        ArrowUp: [0, -step],
        ArrowDown: [0, step],
      };
      const shift = by[event.key];
      const mark = marks[chosen];
      if (shift && mark) {
        move(chosen, { u_px: mark.u_px + shift[0], v_px: mark.v_px + shift[1] });
        event.preventDefault();
      } else if (/^[1-9]$/.test(event.key) && marks[Number(event.key) - 1]) {
        setChosen(Number(event.key) - 1);
        event.preventDefault();
      } else if (event.key === 'Delete' && mark) {
        setMarks(marks.filter((_, at) => at !== chosen));
        setChosen(0);
      }
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  });

  const onPhoto = (event: React.MouseEvent) => {
    const at = pixelAt(event);
    if (!at || dragged.current !== null || !waiting) return;
    setMarks([...marks, { ...at, x_mm: waiting.x, y_mm: waiting.y }]);
    setChosen(marks.length);
    setWaiting(null);
  };
  return { propose, onPhoto };
}

function registrationOf(marks: readonly Mark[], box: ViewBox | null) {
  if (marks.length < 2) {
    return [
      null,
      marks.length === 1 ? 'Add one more mark: two marks register a photo, four rectify it.' : null,
    ] as const;
  }
  const around = box ?? { x: marks[0]?.x_mm ?? 0, y: marks[0]?.y_mm ?? 0, w: 1, h: 1 };
  try {
    return [register(marks, around), null] as const;
  } catch (error) {
    if (!(error instanceof RegistrationError)) throw error;
    return [null, `${error.message}.`] as const;
  }
}

function describeProposal({ from, larger_than_drawn: larger }: Proposal): string {
  if (from === 'card')
    return 'proposed from the bracket of the scale card: drag the marks to the part';
  if (larger === null) return 'proposed from the part’s outline: check that the lines match it';
  const percent = Math.round(Math.abs(larger) * 100);
  return percent <= 3
    ? 'proposed from the outline; the scale card agrees with its size'
    : `proposed from the outline; by the scale card it is ${percent} % ` +
        `${larger > 0 ? 'larger' : 'smaller'} than drawn: is it this part, this view?`;
}

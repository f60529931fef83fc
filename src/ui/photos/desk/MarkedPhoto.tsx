import type { SetStateAction, RefObject, Dispatch } from 'react';
import { project, type Mark, type Registration, type ViewBox } from '../../../core/measures/image';
import type { Drawing } from '../../../core/geometry/mesh';
import type { ShownPhoto, Views } from '../../../contract/photos';
import { fixed } from '../../lib/format';
import { levelAddress, levelFor } from '../photo-address';

const LOUPE = 4;

const SHOWN = 1400;

interface MarkDrawingProps {
  mark: Mark | undefined;
  studyId: string;
  photo: ShownPhoto;
  chosen: number;
  drawing: Drawing | undefined;
  box: ViewBox | null;
  marks: readonly Mark[];
  waiting: { x: number; y: number } | null;
  setWaiting: Dispatch<SetStateAction<{ x: number; y: number } | null>>;
}

/** The drawing beside the photo: which corner the mark belongs to. */
export function MarkDrawing({
  mark,
  studyId,
  photo,
  chosen,
  drawing,
  box,
  marks,
  waiting,
  setWaiting,
}: MarkDrawingProps) {
  return (
    <div>
      {mark && (
        <figure className="mb-2">
          <Loupe studyId={studyId} photo={photo} mark={mark} />
          <figcaption className="mt-1 text-2xs text-ink-2">
            mark {chosen + 1} at {fixed(mark.x_mm, 1)}, {fixed(mark.y_mm, 1)} mm
            <span className="keys-only">
              {' '}
              · <kbd className="key">←↑↓→</kbd> one pixel, with <kbd className="key">Shift</kbd> ten
              · <kbd className="key">1</kbd>–<kbd className="key">9</kbd> another mark
            </span>
          </figcaption>
        </figure>
      )}
      {drawing && box && (
        <ViewCorners
          visible={drawing.visible}
          box={box}
          marks={marks}
          waiting={waiting}
          onChoose={setWaiting}
        />
      )}
      {waiting && (
        <p className="mt-1 text-xs text-plum" role="status">
          Now click the same point on the photo.
        </p>
      )}
    </div>
  );
}

interface MarkHandleProps {
  at: number;
  dragged: RefObject<number | null>;
  setChosen: Dispatch<SetStateAction<number>>;
  u_px: number;
  v_px: number;
  unit: number;
  chosen: number;
  width: number;
}

/** One mark: dragged to where the corner is in the photo. */
function MarkHandle({ at, dragged, setChosen, u_px, v_px, unit, chosen, width }: MarkHandleProps) {
  return (
    <g
      data-mark={at + 1}
      className="cursor-grab"
      onPointerDown={(event) => {
        dragged.current = at;
        setChosen(at);
        event.currentTarget.setPointerCapture?.(event.pointerId);
      }}
    >
      <circle cx={u_px} cy={v_px} r={unit * 2.4} fill="transparent" />
      <circle
        cx={u_px}
        cy={v_px}
        r={unit * (at === chosen ? 1.3 : 1)}
        fill="none"
        stroke="white"
        strokeWidth={unit / 1.6}
      />
      <circle
        cx={u_px}
        cy={v_px}
        r={unit * (at === chosen ? 1.3 : 1)}
        fill="none"
        stroke="var(--plum)"
        strokeWidth={unit / 3.2}
      />
      <text
        {...beside(u_px, unit * 1.8, width / 2)}
        y={v_px - unit}
        fontSize={unit * 3}
        fill="white"
        stroke="black"
        strokeWidth={unit / 4}
        paintOrder="stroke"
      >
        {at + 1}
      </text>
    </g>
  );
}

interface MarksHeadProps {
  propose: () => void;
  drawing: Drawing | undefined;
  isChanged: boolean;
  marks: readonly Mark[];
  registration: Registration | null;
  onKeep: PhotoMarksProps['onKeep'];
  setNote: Dispatch<SetStateAction<string>>;
  setMarks: Dispatch<SetStateAction<readonly Mark[]>>;
  note: string;
}

/** What the marks say, and what can be done with them. */
export function MarksHead({
  propose,
  drawing,
  isChanged,
  marks,
  registration,
  onKeep,
  setNote,
  setMarks,
  note,
}: MarksHeadProps) {
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      <h2 className="font-semibold">Tied to the view</h2>
      <button type="button" className="action" onClick={propose} disabled={!drawing}>
        Find the part
      </button>
      <button
        type="button"
        className="action action-main"
        disabled={!isChanged || (marks.length > 0 && !registration)}
        onClick={() => void onKeep(marks).then((isKept) => isKept && setNote('kept'))}
      >
        Keep the marks
      </button>
      {marks.length > 0 && (
        <button type="button" className="action" onClick={() => setMarks([])}>
          Remove all marks
        </button>
      )}
      <output className="text-xs text-ink-2" aria-live="polite">
        {note}
      </output>
    </div>
  );
}

interface MarkedPhotoProps {
  frame: RefObject<SVGSVGElement | null>;
  waiting: { x: number; y: number } | null;
  width: number;
  height: number;
  photo: ShownPhoto;
  marks: readonly Mark[];
  onPhoto: (event: React.MouseEvent) => void;
  dragged: RefObject<number | null>;
  pixelAt: (event: { clientX: number; clientY: number }) => { u_px: number; v_px: number } | null;
  move: (at: number, to: { u_px: number; v_px: number }) => void;
  studyId: string;
  registration: Registration | null;
  drawing: Drawing | undefined;
  unit: number;
  setChosen: Dispatch<SetStateAction<number>>;
  chosen: number;
}

/** The photo with its marks. */
export function MarkedPhoto({
  frame,
  waiting,
  width,
  height,
  photo,
  marks,
  onPhoto,
  dragged,
  pixelAt,
  move,
  studyId,
  registration,
  drawing,
  unit,
  setChosen,
  chosen,
}: MarkedPhotoProps) {
  return (
    <svg
      ref={frame}
      className={`block w-full touch-none bg-desk ${waiting ? 'cursor-crosshair' : ''}`}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`Photo ${photo.name} with ${marks.length} marks`}
      onClick={onPhoto}
      onPointerMove={(event) => {
        const at = dragged.current === null ? null : pixelAt(event);
        if (at && dragged.current !== null) move(dragged.current, at);
      }}
      onPointerUp={() => {
        setTimeout(() => {
          dragged.current = null;
        });
      }}
    >
      <image
        href={levelAddress(studyId, photo, levelFor(width, height, SHOWN))}
        width={width}
        height={height}
      />
      {registration && drawing && (
        <path
          d={rectifiedPath(drawing.visible, registration.toPicture)}
          fill="none"
          stroke="var(--plum)"
          strokeWidth={unit / 4}
          strokeOpacity={0.8}
          pointerEvents="none"
        />
      )}
      {marks.map(({ u_px, v_px }, at) => (
        <MarkHandle
          key={at}
          at={at}
          dragged={dragged}
          setChosen={setChosen}
          u_px={u_px}
          v_px={v_px}
          unit={unit}
          chosen={chosen}
          width={width}
        />
      ))}
    </svg>
  );
}

/** A view's lines as they lie in the photo. */
const rectifiedPath = (visible: string, toPicture: readonly number[]): string =>
  visible.replace(/(-?\d+(?:\.\d+)?)[ ,](-?\d+(?:\.\d+)?)/g, (_, u: string, v: string) => {
    const at = project(toPicture, { x: Number(u), y: -Number(v) });
    return `${at.x.toFixed(1)} ${at.y.toFixed(1)}`;
  });

interface LoupeProps {
  studyId: string;
  photo: ShownPhoto;
  mark: Mark;
}

/** What lies around a mark, pixel by pixel. */
function Loupe({ studyId, photo, mark }: LoupeProps) {
  const half = 110 / LOUPE;
  return (
    <svg
      className="block w-full max-w-[220px] border border-line bg-desk"
      viewBox={`${mark.u_px - half} ${mark.v_px - half} ${2 * half} ${2 * half}`}
      role="img"
      aria-label="the mark under the loupe"
    >
      <image
        href={levelAddress(studyId, photo, 0)}
        width={photo.width ?? 1}
        height={photo.height ?? 1}
        className="[image-rendering:pixelated]"
      />
      <path
        d={`M${mark.u_px - half} ${mark.v_px}h${2 * half}M${mark.u_px} ${mark.v_px - half}v${2 * half}`}
        stroke="var(--plum)"
        strokeWidth={0.5}
      />
    </svg>
  );
}

/** Where a number stands beside a mark: towards the middle, so that the edge cuts none off. */
const beside = (x: number, gap: number, middle: number) =>
  x > middle ? ({ x: x - gap, textAnchor: 'end' } as const) : { x: x + gap };

interface ViewCornersProps {
  visible: string;
  box: ViewBox;
  marks: readonly Mark[];
  waiting: { x: number; y: number } | null;
  onChoose: (point: { x: number; y: number }) => void;
}

/** The drawing of a view with its corners to choose from; what is clicked beside them counts as it is. */
function ViewCorners({ visible, box, marks, waiting, onChoose }: ViewCornersProps) {
  const pad = Math.max(box.w, box.h) / 20;
  const unit = Math.max(box.w, box.h) / 100;
  const corners = cornersIn(visible);
  return (
    <svg
      className="block w-full cursor-crosshair border border-line-soft"
      viewBox={`${box.x - pad} ${-(box.y + box.h) - pad} ${box.w + 2 * pad} ${box.h + 2 * pad}`}
      role="img"
      aria-label="the view’s drawing: click a corner"
      onClick={(event) => {
        const rect = event.currentTarget.getBoundingClientRect();
        const x = box.x - pad + ((event.clientX - rect.left) / rect.width) * (box.w + 2 * pad);
        const y =
          box.y + box.h + pad - ((event.clientY - rect.top) / rect.height) * (box.h + 2 * pad);
        const near = corners
          .map((corner) => ({ corner, away: Math.hypot(corner.x - x, corner.y - y) }))
          .sort((a, b) => a.away - b.away)[0];
        onChoose(near && near.away < 4 * unit ? near.corner : { x, y });
      }}
    >
      <path d={visible} fill="none" stroke="var(--ink)" strokeWidth={unit / 2} />
      {marks.map(({ x_mm, y_mm }, at) => (
        <g key={at}>
          <circle cx={x_mm} cy={-y_mm} r={2 * unit} fill="var(--plum)" />
          <text
            {...beside(x_mm, 2.5 * unit, box.x + box.w / 2)}
            y={-y_mm - unit}
            fontSize={6 * unit}
            fill="var(--plum)"
          >
            {at + 1}
          </text>
        </g>
      ))}
      {waiting && (
        <circle
          cx={waiting.x}
          cy={-waiting.y}
          r={3 * unit}
          fill="none"
          stroke="var(--plum)"
          strokeWidth={unit}
        />
      )}
    </svg>
  );
}

function cornersIn(visible: string): { x: number; y: number }[] {
  const numbers = (visible.match(/-?\d+(?:\.\d+)?/g) ?? []).map(Number);
  return Array.from({ length: numbers.length >> 1 }, (_, at) => ({
    x: numbers[2 * at] ?? 0,
    y: -(numbers[2 * at + 1] ?? 0),
  }));
}

export interface PhotoMarksProps {
  studyId: string;
  photo: ShownPhoto;
  views: Views | undefined;
  onKeep: (marks: readonly Mark[]) => Promise<boolean>;
}

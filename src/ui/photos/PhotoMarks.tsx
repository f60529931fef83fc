import { nearest } from '../kit/event-target';
import { useEffect, useRef, useState } from 'react';
import {
  project,
  register,
  RegistrationError,
  type Mark,
  type ViewBox,
} from '../../core/measures/image';
import { VIEW_NAMES } from '../../core/geometry/mesh';
import type { Proposal, ShownPhoto, Views } from '../../server/photos';
import { callApi, failureText } from '../kit/request';
import { fixed } from '../lib/format';
import { levelAddress, levelFor } from './photo-address';

interface PhotoMarksProps {
  studyId: string;
  photo: ShownPhoto;
  views: Views | undefined;
  onKeep: (marks: readonly Mark[]) => Promise<boolean>;
}

const LOUPE = 4;
const SHOWN = 1400;

/** Marks on a photo: proposed or set by hand, dragged, moved by arrows under a loupe, and kept. */
export function PhotoMarks({ studyId, photo, views, onKeep }: PhotoMarksProps) {
  const [marks, setMarks] = useState<readonly Mark[]>(photo.marks);
  const [chosen, setChosen] = useState(0);
  const [waiting, setWaiting] = useState<{ x: number; y: number } | null>(null);
  const [note, setNote] = useState('');
  const frame = useRef<SVGSVGElement>(null);
  const dragged = useRef<number | null>(null);
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
  const isChanged = JSON.stringify(marks) !== JSON.stringify(photo.marks);
  const unit = Math.max(width, height) / 160;

  const [tie, fault] = tieOf(marks, box);
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
  const propose = () => {
    setNote('looking for the part …');
    const address = `/studies/${studyId}/photos/marks?path=${encodeURIComponent(photo.path)}`;
    callApi<Proposal>('GET', address).then(
      (proposal) => {
        setMarks(proposal.marks);
        setChosen(0);
        setNote(sayProposal(proposal));
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
  const mark = marks[chosen];
  return (
    <section aria-label="Marks" className="sheet p-3">
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <h2 className="font-semibold">Tied to the view</h2>
        <button type="button" className="action" onClick={propose} disabled={!drawing}>
          Find the part
        </button>
        <button
          type="button"
          className="action action-main"
          disabled={!isChanged || (marks.length > 0 && !tie)}
          onClick={() => void onKeep(marks).then((isKept) => isKept && setNote('kept'))}
        >
          Keep the marks
        </button>
        {marks.length > 0 && (
          <button type="button" className="action" onClick={() => setMarks([])}>
            Take all out
          </button>
        )}
        <output className="text-xs text-ink-2" aria-live="polite">
          {note}
        </output>
      </div>
      <p className={`mb-2 text-xs ${fault ? 'text-warn' : 'text-ink-2'}`} role="status">
        {fault ??
          (tie
            ? `${marks.length} marks · ${fixed(tie.px_per_mm, 1)} px/mm · tilted by ${fixed(tie.tilt_deg, 0)}°${
                tie.misfit_mm === null ? '' : ` · misfit ${fixed(tie.misfit_mm, 2)} mm`
              }${tie.tilt_deg > 35 ? ' — so far that it may be another part or another view' : ''}`
            : 'No marks yet: find the part, or click a corner of the drawing and then the same corner on the photo.')}
      </p>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-2 md:grid-cols-[minmax(0,5fr)_minmax(180px,2fr)]">
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
          {tie && drawing && (
            <path
              d={laidPath(drawing.visible, tie.toPicture)}
              fill="none"
              stroke="var(--plum)"
              strokeWidth={unit / 4}
              strokeOpacity={0.8}
              pointerEvents="none"
            />
          )}
          {marks.map(({ u_px, v_px }, at) => (
            <g
              key={at}
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
          ))}
        </svg>
        <div>
          {mark && (
            <figure className="mb-2">
              <Loupe studyId={studyId} photo={photo} mark={mark} />
              <figcaption className="mt-1 text-2xs text-ink-2">
                mark {chosen + 1} at {fixed(mark.x_mm, 1)}, {fixed(mark.y_mm, 1)} mm ·{' '}
                <kbd className="key">←↑↓→</kbd> one pixel, with <kbd className="key">Shift</kbd> ten
                · <kbd className="key">1</kbd>–<kbd className="key">9</kbd> another mark
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
      </div>
    </section>
  );
}

function tieOf(marks: readonly Mark[], box: ViewBox | null) {
  if (marks.length < 2) {
    return [
      null,
      marks.length === 1 ? 'One mark more: two tie a photo, four set it upright.' : null,
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

function sayProposal({ from, larger_than_drawn: larger }: Proposal): string {
  if (from === 'card')
    return 'proposed from the bracket of the scale card: drag the marks to the part';
  if (larger === null) return 'proposed from the part’s outline: look whether the lines lie on it';
  const percent = Math.round(Math.abs(larger) * 100);
  return percent <= 3
    ? 'proposed from the outline; the scale card agrees with its size'
    : `proposed from the outline; by the scale card it is ${percent} % ` +
        `${larger > 0 ? 'larger' : 'smaller'} than drawn: is it this part, this view?`;
}

/** A view's lines as they lie in the photo. */
const laidPath = (visible: string, toPicture: readonly number[]): string =>
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

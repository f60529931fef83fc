import { chosenOf } from '../kit/chosen';
import { useRef, useState } from 'react';
import { SHOWN_SIDES, type Box, type ShownSide } from '../drawing/layout';
import { readAgain } from '../kit/leave';
import { callApi, failureText } from '../kit/request';
import { useOnce } from '../kit/use-once';
import { readNumber } from '../lib/entry';

/** A rectangle that is being drawn on a side: u to the right and v upwards, mm. */
export interface DrawnZone {
  side: ShownSide;
  u1: number;
  v1: number;
  u2: number;
  v2: number;
}

interface NewZoneProps {
  studyId: string;
  artefactId: string;
  drawn: DrawnZone | null;
  onDrawn: (zone: DrawnZone | null) => void;
}

const CORNERS = [
  ['u1', 'from, across'],
  ['v1', 'from, up'],
  ['u2', 'to, across'],
  ['v2', 'to, up'],
] as const;

/** A zone drawn on a side: dragged in the drawing, or typed. */
export function NewZone(props: NewZoneProps) {
  const { studyId, artefactId, drawn, onDrawn } = props;
  const [name, setName] = useState('');
  const [weight, setWeight] = useState('1');
  const [message, setMessage] = useState<string | null>(null);
  const once = useOnce();
  const add = async () => {
    const heavy = readNumber(weight);
    if (!drawn || name.trim() === '' || 'fault' in heavy || heavy.value === null) {
      setMessage('A zone needs a name, a weight and a rectangle.');
      return;
    }
    if (drawn.u1 === drawn.u2 || drawn.v1 === drawn.v2) {
      setMessage('The rectangle is empty: drag one in the drawing, or type its corners.');
      return;
    }
    const { side, u1: u1_mm, v1: v1_mm, u2: u2_mm, v2: v2_mm } = drawn;
    try {
      await callApi('POST', `/studies/${studyId}/artefacts/${artefactId}/zones`, {
        zone: { name: name.trim(), weight: heavy.value },
        place: { side, u1_mm, v1_mm, u2_mm, v2_mm },
      });
      // The table of zones below shows it too.
      await readAgain();
    } catch (error) {
      setMessage(failureText(error, 'It could not be saved.'));
    }
  };
  if (!drawn) {
    return <ZoneInvitation onDrawn={onDrawn} />;
  }
  return (
    <form
      className="grid gap-2 p-3"
      aria-label="New zone"
      onSubmit={(event) => {
        event.preventDefault();
        once('add', add);
      }}
    >
      <p className="text-xs text-ink-2">
        Drag a rectangle in the drawing, or type its corners in mm.
      </p>
      <div className="grid grid-cols-[1fr_80px] gap-2">
        <label>
          name
          <input
            className="mt-0.5 field"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <label>
          weight
          <input
            className="mt-0.5 field text-right font-mono"
            inputMode="decimal"
            value={weight}
            onChange={(event) => setWeight(event.target.value)}
          />
        </label>
      </div>
      <ZoneSizes drawn={drawn} onDrawn={onDrawn} />
      <div className="flex gap-2">
        <button type="submit" className="action action-main">
          Set this zone
        </button>
        <button type="button" className="action" onClick={() => onDrawn(null)}>
          Cancel
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

interface ZoneInvitationProps {
  onDrawn: NewZoneProps['onDrawn'];
}

/** Before a zone is drawn. */
function ZoneInvitation({ onDrawn }: ZoneInvitationProps) {
  return (
    <div className="flex items-center justify-between gap-2 px-3 py-2">
      <span>
        <span className="block font-semibold">Zones</span>
        <span className="text-xs text-ink-2">areas that are inspected</span>
      </span>
      <button
        type="button"
        className="action"
        onClick={() => onDrawn({ side: 'front', u1: 0, v1: 0, u2: 0, v2: 0 })}
      >
        Draw a zone
      </button>
    </div>
  );
}

interface ZoneSizesProps {
  drawn: DrawnZone;
  onDrawn: NewZoneProps['onDrawn'];
}

/** Where the zone lies and how large it is. */
function ZoneSizes({ drawn, onDrawn }: ZoneSizesProps) {
  return (
    <div className="grid grid-cols-5 gap-2 text-xs">
      <label>
        side
        <select
          className="mt-0.5 field"
          value={drawn.side}
          onChange={(event) => onDrawn({ ...drawn, side: chosenOf(event, SHOWN_SIDES) })}
        >
          {SHOWN_SIDES.map((side) => (
            <option key={side}>{side}</option>
          ))}
        </select>
      </label>
      {CORNERS.map(([key, said]) => (
        <label key={key}>
          {said}
          <input
            className="mt-0.5 field text-right font-mono"
            type="number"
            step="any"
            value={drawn[key]}
            onChange={(event) => onDrawn({ ...drawn, [key]: Number(event.target.value) })}
          />
        </label>
      ))}
    </div>
  );
}

interface ZoneDraftProps {
  side: ShownSide;
  unit: number;
  box: Box;
  drawn: DrawnZone;
  onDrawn: (zone: DrawnZone) => void;
}

const tenth = (value: number): number => Math.round(value * 10) / 10;

/** A side that a rectangle can be dragged on, and the rectangle as it stands. */
export function ZoneDraft({ side, unit, box, drawn, onDrawn }: ZoneDraftProps) {
  const from = useRef<readonly [number, number] | null>(null);
  const placeOf = (event: React.PointerEvent<SVGRectElement>): [number, number] => {
    const matrix = event.currentTarget.getScreenCTM()?.inverse();
    const place = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return [tenth(place.x), tenth(-place.y)];
  };
  return (
    <g>
      {drawn.side === side && (
        <rect
          x={Math.min(drawn.u1, drawn.u2)}
          y={-Math.max(drawn.v1, drawn.v2)}
          width={Math.abs(drawn.u2 - drawn.u1)}
          height={Math.abs(drawn.v2 - drawn.v1)}
          fill="var(--plum)"
          fillOpacity={0.15}
          stroke="var(--plum)"
          strokeWidth={unit * 1.5}
        />
      )}
      <rect
        x={box.left}
        y={box.top}
        width={box.width}
        height={box.height}
        fill="transparent"
        className="cursor-crosshair touch-none"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          from.current = placeOf(event);
        }}
        onPointerMove={(event) => {
          if (!from.current) return;
          const [u1, v1] = from.current;
          const [u2, v2] = placeOf(event);
          onDrawn({ side, u1, v1, u2, v2 });
        }}
        onPointerUp={() => {
          from.current = null;
        }}
      />
    </g>
  );
}

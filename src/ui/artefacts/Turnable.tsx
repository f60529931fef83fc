import { useEffect, useRef, useState } from 'react';
import type { Drawing } from '../../core/geometry/mesh';
import type { AskMesh } from './use-mesh-bench';

interface TurnableProps {
  ask: AskMesh;
  /** Changes when there is another mesh to look at. */
  of: unknown;
  label: string;
}

const STEP_DEG = 15;
const DEG_PER_PX = 0.6;

/** A part that is turned by hand or with the arrow keys, drawn as lines from where one looks. */
export function Turnable({ ask, of, label }: TurnableProps) {
  const [angles, setAngles] = useState({ azimuth: 35, elevation: 28 });
  const [drawing, setDrawing] = useState<Drawing | null>(null);
  const isBusy = useRef(false);
  const wanted = useRef(angles);
  const grip = useRef<{ x: number; y: number } | null>(null);

  useEffect(() => {
    wanted.current = angles;
    if (isBusy.current) return;
    isBusy.current = true;
    // Only the latest view is drawn: what was passed on the way is left out.
    const draw = async (): Promise<void> => {
      const view = wanted.current;
      setDrawing(await ask({ ask: 'turn', ...view }));
      if (view !== wanted.current) await draw();
    };
    void draw()
      .catch(() => setDrawing(null))
      .finally(() => {
        isBusy.current = false;
      });
  }, [ask, angles, of]);

  const turn = (azimuth: number, elevation: number) =>
    setAngles((now) => ({
      azimuth: (now.azimuth + azimuth + 360) % 360,
      elevation: Math.max(-90, Math.min(90, now.elevation + elevation)),
    }));
  const keys: Record<string, [number, number]> = {
    ArrowLeft: [-STEP_DEG, 0],
    ArrowRight: [STEP_DEG, 0],
    ArrowUp: [0, STEP_DEG],
    ArrowDown: [0, -STEP_DEG],
  };
  const size = drawing ? Math.max(drawing.box.width, drawing.box.height) : 1;
  const middle = drawing
    ? [drawing.box.left + drawing.box.width / 2, drawing.box.top + drawing.box.height / 2]
    : [0, 0];
  // The whole part is seen, with a margin, in a picture of 4:3.
  const half = drawing ? 0.55 * Math.max(drawing.box.width, (4 / 3) * drawing.box.height) : 0.55;
  return (
    <svg
      viewBox={`${(middle[0] ?? 0) - half} ${(middle[1] ?? 0) - half * 0.75} ${2 * half} ${1.5 * half}`}
      className="block w-full cursor-grab touch-none focus-visible:outline-2 focus-visible:outline-plum"
      tabIndex={0}
      role="img"
      aria-label={
        `${label}, seen from ${Math.round(angles.azimuth)}° round and ` +
        `${Math.round(angles.elevation)}° above; the arrow keys turn it`
      }
      onKeyDown={(event) => {
        const by = keys[event.key];
        if (!by) return;
        event.preventDefault();
        turn(...by);
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        grip.current = { x: event.clientX, y: event.clientY };
      }}
      onPointerMove={(event) => {
        const held = grip.current;
        if (!held) return;
        turn(-(event.clientX - held.x) * DEG_PER_PX, (event.clientY - held.y) * DEG_PER_PX);
        grip.current = { x: event.clientX, y: event.clientY };
      }}
      onPointerUp={() => {
        grip.current = null;
      }}
    >
      {drawing && (
        <path
          d={drawing.visible}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={size / 260}
          strokeLinejoin="round"
        />
      )}
    </svg>
  );
}

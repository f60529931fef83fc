import { useCallback, useEffect, useRef, useState } from 'react';
import type { ViewBox } from '../../core/measures/image';
import { PhotoCanvas } from '../photos/PhotoCanvas';
import { Tiles, type RectifiedPhoto, type Place } from '../photos/tiles';
import { between, pointUnder } from '../photos/use-place';

/** A point of a view, mm. */
interface Point {
  x: number;
  y: number;
}

interface PlacePickerProps {
  studyId: string;
  /** The photos whose places are shown; on the first one the place is drawn. */
  photos: readonly { photo: RectifiedPhoto; label: string }[];
  place: ViewBox | null;
  onPlace: (box: ViewBox) => void;
}

const MOST_SHOWN = 6;

/** Where on a view the place lies that judges see: drawn on one photo, and seen of the others at once. */
export function PlacePicker({ studyId, photos, place, onPlace }: PlacePickerProps) {
  const [draws] = useState(() => new Set<() => void>());
  const [tiles] = useState(
    () =>
      new Tiles(() =>
        requestAnimationFrame(() => {
          for (const draw of draws) draw();
        }),
      ),
  );
  const corner = useRef<Point | null>(null);
  const register = useCallback(
    (draw: () => void) => {
      draws.add(draw);
      return () => {
        draws.delete(draw);
      };
    },
    [draws],
  );
  const [first] = photos;
  if (!first) return null;
  const whole = first.photo.laid.box;
  return (
    <div className="grid gap-2 md:grid-cols-[3fr_2fr]">
      <figure>
        <figcaption className="mb-1 text-ink-2">
          draw the place with the pointer, or type it
        </figcaption>
        <Window
          studyId={studyId}
          tiles={tiles}
          register={register}
          label={`the view of ${first.label}, with the place`}
          photo={first.photo}
          box={whole}
          outline={place}
          onPoint={(point, isFirst) => {
            if (isFirst) corner.current = point;
            else if (point === null) corner.current = null;
            else if (corner.current) onPlace(rounded(between(corner.current, point)));
          }}
        />
      </figure>
      <div className="grid grid-cols-2 content-start gap-2">
        {place &&
          photos.slice(0, MOST_SHOWN).map(({ photo, label }) => (
            <figure key={photo.path}>
              <Window
                studyId={studyId}
                tiles={tiles}
                register={register}
                label={`what judges see of ${label}`}
                photo={photo}
                box={place}
                outline={null}
              />
              <figcaption className="text-2xs text-ink-2">{label}</figcaption>
            </figure>
          ))}
      </div>
    </div>
  );
}

const rounded = ({ x, y, w, h }: ViewBox): ViewBox => {
  const tenth = (value: number) => Math.round(10 * value) / 10;
  return { x: tenth(x), y: tenth(y), w: Math.max(0.1, tenth(w)), h: Math.max(0.1, tenth(h)) };
};

interface WindowProps {
  studyId: string;
  tiles: Tiles;
  register: (draw: () => void) => () => void;
  photo: RectifiedPhoto;
  box: ViewBox;
  outline: ViewBox | null;
  label: string;
  /** Where the pointer presses and moves, mm of the view; null where it lets go. */
  onPoint?: (point: Point | null, isFirst: boolean) => void;
}

/** A photo's view, fitted to a box of it. */
function Window(props: WindowProps) {
  const { studyId, tiles, register, photo, box, outline, label, onPoint } = props;
  const frame = useRef<HTMLDivElement>(null);
  const place = useRef<Place>({ x: 0, y: 0, scale: 1 });
  useEffect(() => {
    const canvas = frame.current?.querySelector('canvas');
    if (!canvas) return undefined;
    const fit = () => {
      const scale = Math.min(canvas.clientWidth / box.w, canvas.clientHeight / box.h);
      place.current = { x: box.x + box.w / 2, y: box.y + box.h / 2, scale };
    };
    fit();
    const observer = new ResizeObserver(fit);
    observer.observe(canvas);
    return () => observer.disconnect();
  });
  return (
    <div
      ref={frame}
      className="touch-none overflow-hidden sheet"
      onPointerDown={(event) => {
        if (!onPoint) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        onPoint(pointUnder(event, place.current), true);
      }}
      onPointerMove={(event) => onPoint?.(pointUnder(event, place.current), false)}
      onPointerUp={() => onPoint?.(null, false)}
      onPointerCancel={() => onPoint?.(null, false)}
    >
      <PhotoCanvas
        studyId={studyId}
        tiles={tiles}
        place={place}
        register={register}
        label={label}
        photos={[photo]}
        mode="over"
        split={0}
        gains={[1]}
        isStrong={false}
        outlines={outline ? [{ box: outline, label: '', isStrong: true }] : []}
        height={onPoint ? 2 : 4}
      />
    </div>
  );
}

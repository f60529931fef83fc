import { lightInWords } from '../../../core/answers/figure-names';
import { useTileDraws } from '../../photos/use-tile-draws';
import {
  useEffect,
  useRef,
  useState,
  type SetStateAction,
  type Dispatch,
  type RefObject,
} from 'react';
import type { ViewBox } from '../../../core/measures/image';
import { inWords } from '../../../core/model/study';
import { zoneBox } from '../../../core/measures/surface';
import type { BenchZone, EnteredFinding } from '../../../contract/inspect';
import { PhotoCanvas } from '../../photos/PhotoCanvas';
import type { RectifiedPhoto, Place, Tiles } from '../../photos/tiles';
import { between, pointUnder, usePlace, useWheel } from '../../photos/use-place';

interface ZonePhotoProps {
  studyId: string;
  /** Photos of the specimen that show the zone's side, laid flat. */
  photos: readonly RectifiedPhoto[];
  zone: BenchZone;
  findings: readonly EnteredFinding[];
  /** Told where the last finding is: a box that was dragged on a photo. */
  onBox: (box: ViewBox, photo: RectifiedPhoto) => void;
}

/** The zone on the specimen's own photo; where a finding is, is dragged on it. */
export function ZonePhoto({ studyId, photos, zone, findings, onBox }: ZonePhotoProps) {
  const [path, setPath] = useState(photos[0]?.path);
  const [isBoxing, setBoxing] = useState(false);
  const [draft, setDraft] = useState<ViewBox | null>(null);
  const corner = useRef<{ x: number; y: number } | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const { tiles, redraw, register } = useTileDraws();
  const { place, go, zoom, handlers } = usePlace({ x: 0, y: 0, scale: 4 }, () =>
    requestAnimationFrame(redraw),
  );
  useWheel(frame, zoom);
  const box = zone.place && zoneBox(zone.place);
  useEffect(() => {
    const canvas = frame.current?.querySelector('canvas');
    if (!box || !canvas) return;
    const scale = 0.9 * Math.min(canvas.clientWidth / box.w, canvas.clientHeight / box.h);
    go({ x: box.x + box.w / 2, y: box.y + box.h / 2, scale });
    // Another zone is gone to once, and not again when something is said of it.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [zone.zone_id, path]);
  const photo = photos.find((one) => one.path === path) ?? photos[0];
  if (!photo) return null;

  const pointOf = (event: React.PointerEvent) => pointUnder(event, place.current);
  const isBox = (event: React.PointerEvent) => isBoxing || event.shiftKey;
  const pointers = {
    ...handlers,
    onPointerDown: (event: React.PointerEvent) => {
      if (!isBox(event)) return handlers.onPointerDown(event);
      event.currentTarget.setPointerCapture(event.pointerId);
      corner.current = pointOf(event);
    },
    onPointerMove: (event: React.PointerEvent) => {
      if (!corner.current) return handlers.onPointerMove(event);
      setDraft(between(corner.current, pointOf(event)));
    },
    onPointerUp: (event: React.PointerEvent) => {
      if (!corner.current) return handlers.onPointerUp(event);
      const drawn = between(corner.current, pointOf(event));
      corner.current = null;
      setDraft(null);
      setBoxing(false);
      if (drawn.w > 0.2 && drawn.h > 0.2) onBox(drawn, photo);
    },
  };
  const outlines = [
    ...(box ? [{ box, label: zone.name, isStrong: false }] : []),
    ...findings.flatMap(({ defect, x_mm, y_mm, w_mm, h_mm }) =>
      x_mm !== null && y_mm !== null && w_mm !== null && h_mm !== null
        ? [{ box: { x: x_mm, y: y_mm, w: w_mm, h: h_mm }, label: inWords(defect), isStrong: true }]
        : [],
    ),
    ...(draft ? [{ box: draft, label: '', isStrong: true }] : []),
  ];
  return (
    <figure className="min-w-0 overflow-hidden sheet">
      <PhotoChoice
        photos={photos}
        photo={photo}
        setPath={setPath}
        isBoxing={isBoxing}
        setBoxing={setBoxing}
      />
      <PhotoFrame
        frame={frame}
        pointers={pointers}
        isBoxing={isBoxing}
        studyId={studyId}
        tiles={tiles}
        place={place}
        outlines={outlines}
        register={register}
        photo={photo}
        zone={zone}
      />
    </figure>
  );
}

interface PhotoFrameProps {
  frame: RefObject<HTMLDivElement | null>;
  pointers: ReturnType<typeof usePlace>['handlers'];
  isBoxing: boolean;
  studyId: string;
  tiles: Tiles;
  place: RefObject<Place>;
  outlines: {
    box: { x: number; y: number; w: number; h: number };
    label: string;
    isStrong: boolean;
  }[];
  register: (draw: () => void) => () => void;
  photo: RectifiedPhoto;
  zone: BenchZone;
}

/** The photo, moved and zoomed, with what was found. */
function PhotoFrame({
  frame,
  pointers,
  isBoxing,
  studyId,
  tiles,
  place,
  outlines,
  register,
  photo,
  zone,
}: PhotoFrameProps) {
  return (
    <div ref={frame} {...pointers} className={isBoxing ? 'cursor-crosshair' : ''}>
      <PhotoCanvas
        studyId={studyId}
        tiles={tiles}
        place={place}
        outlines={outlines}
        register={register}
        split={0}
        isStrong={false}
        photos={[photo]}
        gains={[1]}
        mode="over"
        label={`photo of ${zone.name}`}
        height={2}
      />
    </div>
  );
}

interface PhotoChoiceProps {
  photos: ZonePhotoProps['photos'];
  photo: RectifiedPhoto;
  setPath: Dispatch<SetStateAction<string | undefined>>;
  isBoxing: boolean;
  setBoxing: Dispatch<SetStateAction<boolean>>;
}

/** Which photo is looked at, and whether a box is drawn in it. */
function PhotoChoice({ photos, photo, setPath, isBoxing, setBoxing }: PhotoChoiceProps) {
  return (
    <figcaption className="flex flex-wrap items-center gap-1 px-2 py-1 text-xs">
      {photos.map((one) => (
        <button
          key={one.path}
          type="button"
          className="action min-h-[28px] text-xs aria-pressed:bg-plum-soft aria-pressed:font-semibold"
          aria-pressed={one.path === photo.path}
          onClick={() => setPath(one.path)}
        >
          {one.filed?.light ? lightInWords(one.filed.light) : 'light not stated'}
        </button>
      ))}
      <button
        type="button"
        className="ml-auto action min-h-[28px] text-xs aria-pressed:bg-plum-soft"
        aria-pressed={isBoxing}
        onClick={() => setBoxing(!isBoxing)}
      >
        Box where it is
      </button>
      <span className="text-2xs text-ink-2">or drag with Shift</span>
    </figcaption>
  );
}

import { useEffect, useRef, useState } from 'react';
import { usePlace } from '../photos/use-place';

const LARGEST = 8;

interface JudgedPicturesProps {
  pictures: readonly string[];
  codes: readonly string[];
  /** Width over height of each picture: its room is kept, so that nothing moves under a finger. */
  shape: number | null;
  /** Called when all of them are there. */
  onShown: () => void;
}

/**
 * Pictures beside one another that grow and move together, under their codes. None is shown before all are
 * there, so that none stands out by coming first.
 */
export function JudgedPictures({ pictures, codes, shape, onShown }: JudgedPicturesProps) {
  const [loaded, setLoaded] = useState(0);
  const [isBroken, setBroken] = useState(false);
  // Wide pictures stand one above the other where a phone would make them small beside one another.
  const isWide = (shape ?? 1) > 1.4;
  const frame = useRef<HTMLDivElement>(null);
  const { place, go, zoom, handlers } = usePlace({ x: 0, y: 0, scale: 1 }, () => paint());
  const paint = () => {
    const { scale } = place.current;
    const within = Math.max(1, Math.min(LARGEST, scale));
    const images = frame.current?.querySelectorAll('img') ?? [];
    for (const image of images) {
      // What is moved out of sight is of no use: the picture's edge is where it stops.
      const reach = [
        (image.clientWidth * (within - 1)) / 2,
        (image.clientHeight * (within - 1)) / 2,
      ] as const;
      const right = Math.max(-reach[0], Math.min(reach[0], -place.current.x * within));
      const down = Math.max(-reach[1], Math.min(reach[1], place.current.y * within));
      image.style.transform = `translate(${right}px, ${down}px) scale(${within})`;
      place.current = { x: -right / within, y: down / within, scale: within };
    }
  };
  // The wheel of a mouse zooms, and the page stands.
  useEffect(() => {
    const element = frame.current;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      zoom(Math.exp(-event.deltaY / 400));
    };
    element?.addEventListener('wheel', onWheel, { passive: false });
    return () => element?.removeEventListener('wheel', onWheel);
  });
  const isThere = loaded >= pictures.length;
  useEffect(() => {
    if (isThere) onShown();
  }, [isThere, onShown]);
  return (
    <div className="grid gap-1.5">
      <div
        ref={frame}
        className={
          'grid gap-2 ' +
          `${isWide ? 'grid-cols-1' : pictures.length === 3 ? 'grid-cols-3' : 'grid-cols-2'} ` +
          `${pictures.length === 3 ? 'sm:grid-cols-3' : 'sm:grid-cols-2'}`
        }
      >
        {pictures.map((address, at) => (
          <figure key={address} className="sheet">
            <div
              className="touch-none overflow-hidden"
              {...handlers}
              onDoubleClick={() => go({ x: 0, y: 0, scale: 1 })}
            >
              <img
                src={address}
                alt={`picture ${codes[at]}`}
                draggable={false}
                className={`block w-full select-none ${isThere ? '' : 'invisible'}`}
                style={{ aspectRatio: shape ?? undefined }}
                onLoad={() => setLoaded((before) => before + 1)}
                onError={() => setBroken(true)}
              />
            </div>
            <figcaption className="border-t border-line py-1 text-center font-mono text-xl">
              {codes[at]}
            </figcaption>
          </figure>
        ))}
      </div>
      {isBroken ? (
        <p role="alert">A picture failed to load. Reload the page; your answers are saved.</p>
      ) : (
        <ZoomKeys zoom={zoom} pictures={pictures} />
      )}
    </div>
  );
}

interface ZoomKeysProps {
  zoom: (factor: number, right?: number, down?: number) => void;
  pictures: JudgedPicturesProps['pictures'];
}

/** Nearer, farther, whole. */
function ZoomKeys({ zoom, pictures }: ZoomKeysProps) {
  return (
    <p className="flex flex-wrap items-center justify-center gap-2 text-center text-ink-2">
      <button
        type="button"
        className="action min-w-11"
        aria-label="larger"
        onClick={() => zoom(1.5)}
      >
        +
      </button>
      <button
        type="button"
        className="action min-w-11"
        aria-label="smaller"
        onClick={() => zoom(1 / 1.5)}
      >
        −
      </button>
      <span>two fingers: {pictures.length === 3 ? 'all three' : 'both'} grow together</span>
    </p>
  );
}

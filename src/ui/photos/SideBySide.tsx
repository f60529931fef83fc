import { nearest } from '../kit/event-target';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { ViewBox } from '../../core/measures/image';
import { inWords, type ContenderMark } from '../../core/model/study';
import { zoneBox } from '../../core/measures/surface';
import type { BenchZone } from '../../server/inspect/page';
import type { ContenderSettings } from '../../core/measures/image';
import type { PhotosData } from '../../server/photos';
import { useKeys } from '../kit/use-keys';
import { ContenderName } from '../marks/ContenderName';
import { MeasureHere } from './MeasureHere';
import { PhotoCanvas } from './PhotoCanvas';
import { sayMeasure } from './say-measure';
import { subjectsOf, type Subject } from './subjects';
import { meanGrey, Tiles, type LaidPhoto } from './tiles';
import { usePhotos } from './use-photos';
import { between, pointUnder, usePlace, useWheel } from './use-place';

interface SideBySideProps extends PhotosData {
  studyId: string;
  marks: readonly ContenderMark[];
  reference: string | null;
  zones: Record<string, BenchZone[]>;
  settings: Record<string, ContenderSettings>;
}

const MODES = ['side', 'blink', 'split', 'difference'] as const;
type Mode = (typeof MODES)[number];
const MOST = 6;

/** The same place of every contender at one scale: moved, zoomed, blinked, split and measured together. */
export function SideBySide(props: SideBySideProps) {
  const { studyId, marks, reference, specimens, zones, settings } = props;
  const desk = usePhotos(studyId, props.photos);
  const subjects = useMemo(
    () => subjectsOf(desk.photos, specimens, marks),
    [desk.photos, specimens, marks],
  );
  const [asked, setAsked] = useState('');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [mode, setMode] = useState<Mode>('side');
  const [turn, setTurn] = useState(0);
  const [split, setSplit] = useState(0.5);
  const [isMatched, setMatched] = useState(false);
  const [isStrong, setStrong] = useState(false);
  const [hasZones, setZones] = useState(false);
  const [order, setOrder] = useState<readonly string[] | null>(null);
  const [region, setRegion] = useState<ViewBox | null>(null);
  const [isDrawing, setDrawing] = useState(false);
  const [scale, setScale] = useState(0);
  const draws = useRef(new Set<() => void>());
  const frame = useRef<HTMLDivElement>(null);
  const corner = useRef<{ x: number; y: number } | null>(null);
  const [hasLoupe, setLoupe] = useState(false);
  const loupe = useRef<{ x: number; y: number } | null>(null);
  const saving = useRef<ReturnType<typeof setTimeout>>(undefined);

  const redraw = useCallback(() => {
    for (const draw of draws.current) draw();
  }, []);
  const [tiles] = useState(() => new Tiles(() => requestAnimationFrame(redraw)));
  const register = useCallback((draw: () => void) => {
    draws.current.add(draw);
    return () => {
      draws.current.delete(draw);
    };
  }, []);
  const subject = subjects.find((one) => one.key === asked) ?? subjects[0];
  const { place, go, zoom, handlers } = usePlace({ x: 0, y: 0, scale: 4 }, () => {
    requestAnimationFrame(redraw);
    clearTimeout(saving.current);
    saving.current = setTimeout(() => {
      setScale(place.current.scale);
      const { x, y, scale: now } = place.current;
      const at = new URLSearchParams({
        of: subject?.key ?? '',
        x: x.toFixed(2),
        y: y.toFixed(2),
        px: now.toFixed(2),
      });
      history.replaceState(history.state, '', `#${at.toString()}`);
    }, 200);
  });
  useWheel(frame, zoom);

  const fit = useCallback(
    (of: Subject | undefined) => {
      const box = of?.photos[0]?.photo.laid.box;
      const canvas = frame.current?.querySelector('canvas');
      if (!box || !canvas) return;
      const share = Math.min(canvas.clientWidth / box.w, canvas.clientHeight / box.h);
      go({ x: box.x + box.w / 2, y: box.y + box.h / 2, scale: share });
    },
    // The place is a reference; going there changes no state.
    // oxlint-disable-next-line react/exhaustive-deps
    [],
  );
  useEffect(() => {
    const at = new URLSearchParams(location.hash.slice(1));
    const [of, x, y, px] = [
      at.get('of'),
      Number(at.get('x')),
      Number(at.get('y')),
      Number(at.get('px')),
    ];
    if (of && px > 0 && Number.isFinite(x) && Number.isFinite(y)) {
      setAsked(of);
      go({ x, y, scale: px });
    } else {
      const chosen = subjects.find((one) => one.key === of) ?? subjects[0];
      setAsked(chosen?.key ?? '');
      fit(chosen);
    }
    // Only once, as the page opens.
    // oxlint-disable-next-line react/exhaustive-deps
  }, []);

  const all = subject?.photos ?? [];
  const chosen = all.filter(({ photo }) => !left.has(photo.path)).slice(0, MOST);
  const shown = order
    ? order.flatMap((path) => chosen.filter(({ photo }) => photo.path === path))
    : chosen;
  // While names are hidden, the choices stand in the shuffled order too; what is left out is not offered.
  const listed = order ? shown : all;
  const hide = () => {
    if (order) return setOrder(null);
    setOrder(shuffled(chosen.map(({ photo }) => photo.path)));
    setTurn(0);
  };
  const turnLoupe = () => {
    setLoupe(!hasLoupe);
    loupe.current = hasLoupe ? null : { x: place.current.x, y: place.current.y };
  };
  const choose = (next: Mode) => {
    setMode(mode === next ? 'side' : next);
    setTurn(0);
  };
  const greys = shown.map(({ photo }) => (isMatched ? meanGrey(tiles, studyId, photo) : null));
  const known = greys.filter((grey) => grey !== null);
  const middle = known.reduce((sum, grey) => sum + grey, 0) / Math.max(1, known.length);
  const gainOf = (at: number): number => {
    const grey = greys[at];
    return grey ? middle / grey : 1;
  };

  useKeys((event) => {
    if (event.altKey) return null;
    const step = 60 / place.current.scale;
    const { x, y } = place.current;
    const keys: Record<string, () => void> = {
      arrowleft: () => go({ x: x - step }),
      arrowright: () => go({ x: x + step }),
      arrowup: () => go({ y: y + step }),
      arrowdown: () => go({ y: y - step }),
      '+': () => zoom(1.25),
      '=': () => zoom(1.25),
      '-': () => zoom(0.8),
      '0': () => fit(subject),
      '\\': () => choose('split'),
      d: () => choose('difference'),
      g: () => setMatched(!isMatched),
      k: () => setStrong(!isStrong),
      z: () => setZones(!hasZones),
      l: turnLoupe,
      b: hide,
      r: () => setDrawing(!isDrawing),
      ' ': () => {
        if (mode === 'blink') setTurn((turn + 1) % Math.max(1, shown.length));
        else choose('blink');
      },
      escape: () => {
        setMode('side');
        setDrawing(false);
      },
    };
    if (event.key === ' ' && nearest(event, 'button, a')) return null;
    return keys[event.key.toLowerCase()] ?? null;
  }, 'input, select, textarea, dialog, summary');

  if (!subject) {
    return (
      <p className="sheet p-4">
        Nothing stands side by side yet: photos of the same view in the same light, tied to it by
        marks, are needed. <a href={`/studies/${studyId}/inspect/photos`}>Photos come in here.</a>
      </p>
    );
  }
  const nameOf = (at: number) => {
    const one = shown[at];
    const mark = marks.find((other) => other.contender_id === one?.contender);
    if (order || !mark || !one) return <b>{at + 1}</b>;
    return (
      <>
        <ContenderName mark={mark} isReference={mark.contender_id === reference} />
        <span className="font-mono text-2xs text-ink-2">{one.code}</span>
      </>
    );
  };
  const plainName = (at: number) =>
    order ? `photo ${at + 1}` : `${shown[at]?.contender ?? ''} ${shown[at]?.code ?? ''}`;
  const outlines = [
    ...(hasZones ? zoneBoxes(zones[subject.artefact_id] ?? [], subject.view) : []),
    ...(region ? [{ box: region, label: 'measured here', isStrong: true }] : []),
  ];
  const pair = shown.slice(0, 2);
  const windows: readonly { at: number; photos: readonly LaidPhoto[]; gains: readonly number[] }[] =
    mode === 'side'
      ? shown.map(({ photo }, at) => ({ at, photos: [photo], gains: [gainOf(at)] }))
      : mode === 'blink'
        ? shown
            .filter((_, at) => at === turn)
            .map(({ photo }) => ({ at: turn, photos: [photo], gains: [gainOf(turn)] }))
        : [
            {
              at: 0,
              photos: pair.map(({ photo }) => photo),
              gains: pair.map((_, at) => gainOf(at)),
            },
          ];
  const rows = Math.min(3, Math.ceil(windows.length / 2));

  const pointOf = (event: React.PointerEvent) => pointUnder(event, place.current);
  const drawing = {
    onPointerDown: (event: React.PointerEvent) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      corner.current = pointOf(event);
    },
    onPointerMove: (event: React.PointerEvent) => {
      if (!corner.current) return;
      setRegion(between(corner.current, pointOf(event)));
    },
    onPointerUp: () => {
      corner.current = null;
      setDrawing(false);
    },
    onPointerCancel: () => {
      corner.current = null;
    },
  };

  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <h1 className="text-lg font-semibold">Side by side</h1>
        <select
          className="field w-auto"
          aria-label="What is compared"
          value={subject.key}
          onChange={(event) => {
            setAsked(event.target.value);
            setRegion(null);
            setLeft(new Set());
            setOrder(null);
            const next = subjects.find((one) => one.key === event.target.value);
            setTimeout(() => fit(next));
          }}
        >
          {subjects.map((one) => (
            <option key={one.key} value={one.key}>
              {one.artefact}, {inWords(one.view)}, {inWords(one.light)} light ({one.photos.length})
            </option>
          ))}
        </select>
        <span className="text-xs text-ink-2">
          one scale{scale > 0 && `, ${scale.toFixed(0)} px/mm`}
          {isMatched && ' · brightness matched to their mean, for the eye only'}
          {isStrong && ' · contrast raised, for the eye only'}
        </span>
        <span className="ml-auto flex flex-wrap gap-1">
          <Toggle
            label="Blink"
            shown="space"
            keys="Space"
            isOn={mode === 'blink'}
            onClick={() => choose('blink')}
          />
          <Toggle label="Split" keys="\" isOn={mode === 'split'} onClick={() => choose('split')} />
          <Toggle
            label="Difference"
            keys="D"
            isOn={mode === 'difference'}
            onClick={() => choose('difference')}
          />
          <Toggle
            label="Match grey"
            keys="G"
            isOn={isMatched}
            onClick={() => setMatched(!isMatched)}
          />
          <Toggle label="Contrast" keys="K" isOn={isStrong} onClick={() => setStrong(!isStrong)} />
          <Toggle label="Loupe" keys="L" isOn={hasLoupe} onClick={turnLoupe} />
          <Toggle label="Zones" keys="Z" isOn={hasZones} onClick={() => setZones(!hasZones)} />
          <Toggle label="Hide names" keys="B" isOn={order !== null} onClick={hide} />
          <Toggle label="Region" keys="R" isOn={isDrawing} onClick={() => setDrawing(!isDrawing)} />
          <button
            type="button"
            className="action"
            data-keys="0"
            data-does="show all of it"
            onClick={() => fit(subject)}
          >
            All <kbd className="key">0</kbd>
          </button>
        </span>
      </div>
      {mode === 'split' && (
        <input
          type="range"
          className="mb-1 w-full"
          aria-label="Where the second photo begins"
          min={0}
          max={1}
          step={0.01}
          value={split}
          onChange={(event) => setSplit(Number(event.target.value))}
        />
      )}
      <div
        ref={frame}
        className={
          `grid gap-2 ${windows.length > 1 ? 'sm:grid-cols-2' : ''} ` +
          `${windows.length > 4 ? 'xl:grid-cols-3' : ''}`
        }
      >
        {windows.map(({ at, photos, gains }) => (
          <figure key={at} className="min-w-0 overflow-hidden sheet">
            <figcaption className="flex min-h-9 flex-wrap items-center gap-2 px-2 py-1 text-xs">
              {nameOf(at)}
              {photos.length > 1 && <span className="text-ink-2">and</span>}
              {photos.length > 1 && nameOf(1)}
              {!order && photos.length === 1 && (
                <span className="basis-full truncate text-ink-2">
                  {(photos[0] && leading(photos[0])) ?? 'nothing measured yet'}
                </span>
              )}
            </figcaption>
            <div
              onPointerMoveCapture={(event) => {
                if (!hasLoupe) return;
                loupe.current = pointOf(event);
                requestAnimationFrame(redraw);
              }}
              {...(isDrawing ? drawing : handlers)}
              className={isDrawing ? 'cursor-crosshair' : ''}
            >
              <PhotoCanvas
                studyId={studyId}
                photos={photos}
                gains={gains}
                tiles={tiles}
                place={place}
                outlines={outlines}
                register={register}
                split={split}
                isStrong={isStrong}
                loupe={loupe}
                mode={mode === 'split' || mode === 'difference' ? mode : 'over'}
                label={
                  photos.length > 1
                    ? `${plainName(0)} and ${plainName(1)}`
                    : `${subject.artefact}, ${subject.view}: ${plainName(at)}`
                }
                height={windows.length > 4 ? 2 : rows}
              />
            </div>
          </figure>
        ))}
      </div>
      <fieldset className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1 text-xs">
        <legend className="sr-only">Which photos</legend>
        {listed.map(({ photo, contender, code }) => (
          <label key={photo.path} className="flex items-center gap-1">
            <input
              type="checkbox"
              checked={!left.has(photo.path)}
              onChange={() => {
                const next = new Set(left);
                if (!next.delete(photo.path)) next.add(photo.path);
                setLeft(next);
                setOrder(null);
              }}
            />
            {order ? 'a photo' : `${contender} ${code}`}
          </label>
        ))}
        <span className="text-ink-2">
          wheel or <kbd className="key">+</kbd> <kbd className="key">-</kbd> zoom · drag or arrows
          move · the address holds the place
        </span>
      </fieldset>
      <MeasureHere
        studyId={studyId}
        region={region}
        settings={settings}
        onRegion={setRegion}
        shown={order ? [] : shown}
        isBlind={order !== null}
        onDraw={() => setDrawing(true)}
        change={desk.change}
        message={desk.message}
      />
    </>
  );
}

interface ToggleProps {
  label: string;
  keys: string;
  shown?: string;
  isOn: boolean;
  onClick: () => void;
}

const Toggle = ({ label, keys, shown, isOn, onClick }: ToggleProps) => (
  <button
    type="button"
    className="action aria-pressed:bg-plum-soft aria-pressed:font-semibold"
    aria-pressed={isOn}
    data-keys={keys}
    data-does={label.toLowerCase()}
    onClick={onClick}
  >
    {label} <kbd className="key">{shown ?? keys}</kbd>
  </button>
);

/** Which measure says most of what is seen, where there are several. */
const LEADING = ['ringing', 'strings', 'gaps', 'texture', 'layer-lines'] as const;

function leading({ measures }: LaidPhoto): string | null {
  const first = LEADING.map((name) => measures.findLast((one) => one.measure === name)).find(
    (one) => one !== undefined,
  );
  return first ? sayMeasure(first) : null;
}

const zoneBoxes = (zones: readonly BenchZone[], view: string) =>
  zones.flatMap(({ name, place }) =>
    place?.side === view
      ? [
          {
            box: zoneBox(place),
            label: name,
            isStrong: false,
          },
        ]
      : [],
  );

function shuffled<Item>(list: readonly Item[]): Item[] {
  const out = [...list];
  for (let at = out.length - 1; at > 0; at -= 1) {
    const [random = 0] = crypto.getRandomValues(new Uint32Array(1));
    const other = random % (at + 1);
    const [a, b] = [out[at], out[other]];
    if (a !== undefined && b !== undefined) [out[at], out[other]] = [b, a];
  }
  return out;
}

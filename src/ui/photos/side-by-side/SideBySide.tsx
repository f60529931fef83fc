import type { BenchZone } from '../../../contract/inspect';
import { zoneBox } from '../../../core/measures/surface';
import { ContenderName } from '../../marks/ContenderName';
import { PhotoCanvas } from '../PhotoCanvas';
import { describeMeasure } from '../describe-measure';
import type { RectifiedPhoto } from '../tiles';
import { MeasureHere } from './MeasureHere';
import type { Subject } from './subjects';
import { useSideBySide, type SideBySideModel, type SideBySideProps } from './use-side-by-side';
import type { PhotoWindow } from './windows';
import { SightHead } from './SightHead';

/** The same place of every contender at one scale: moved, zoomed, blinked, split and measured together. */
export function SideBySide(props: SideBySideProps) {
  const sight = useSideBySide(props);
  const { subject, windows, frame } = sight;
  if (!subject) {
    return (
      <p className="sheet p-4">
        Nothing to compare yet: add photos of the same view in the same light, and set their marks.{' '}
        <a href={`/studies/${sight.studyId}/inspect/photos`}>Photos come in here.</a>
      </p>
    );
  }
  return (
    <>
      <SightHead subject={subject} sight={sight} />
      {sight.mode === 'split' && (
        <input
          type="range"
          className="mb-1 w-full"
          aria-label="Where the second photo begins"
          min={0}
          max={1}
          step={0.01}
          value={sight.split}
          onChange={(event) => sight.setSplit(Number(event.target.value))}
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
          <WindowView
            key={at}
            sight={sight}
            subject={subject}
            at={at}
            photos={photos}
            gains={gains}
          />
        ))}
      </div>
      <WhichPhotos sight={sight} />
      <MeasureHere
        studyId={sight.studyId}
        region={sight.region}
        settings={props.settings}
        onRegion={sight.setRegion}
        shown={sight.order ? [] : sight.shown}
        isBlind={sight.order !== null}
        onDraw={() => sight.setDrawing(true)}
        change={sight.desk.change}
        message={sight.desk.message}
      />
    </>
  );
}

interface WhichPhotosProps {
  sight: SideBySideModel;
}

/** Which photos are shown. */
function WhichPhotos({ sight }: WhichPhotosProps) {
  return (
    <fieldset className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1 text-xs">
      <legend className="sr-only">Which photos</legend>
      {sight.listed.map(({ photo, contender, code }) => (
        <label key={photo.path} className="flex items-center gap-1">
          <input
            type="checkbox"
            checked={!sight.left.has(photo.path)}
            onChange={() => sight.leaveOut(photo.path)}
          />
          {sight.order ? 'a photo' : `${contender} ${code}`}
        </label>
      ))}
      <span className="keys-only text-ink-2">
        Zoom with the wheel or <kbd className="key">+</kbd> <kbd className="key">-</kbd>. Move by
        dragging or with arrows. The page’s address stores the view.
      </span>
    </fieldset>
  );
}

interface WindowProps extends PhotoWindow {
  sight: SideBySideModel;
  subject: Subject;
}

/** One window: a photo, or two over each other, at the place that all windows share. */
function WindowView({ sight, subject, at, photos, gains }: WindowProps) {
  const { mode, order, shown, region } = sight;
  const count = sight.windows.length;
  const plainName = (place: number) =>
    order ? `photo ${place + 1}` : `${shown[place]?.contender ?? ''} ${shown[place]?.code ?? ''}`;
  const zones = sight.given.zones[subject.artefact_id] ?? [];
  const outlines = [
    ...(sight.hasZones ? zoneBoxes(zones, subject.view) : []),
    ...(region ? [{ box: region, label: 'measured here', isStrong: true }] : []),
  ];
  return (
    <figure className="min-w-0 overflow-hidden sheet">
      <figcaption className="flex min-h-9 flex-wrap items-center gap-2 px-2 py-1 text-xs">
        <Name sight={sight} at={at} />
        {photos.length > 1 && <span className="text-ink-2">and</span>}
        {photos.length > 1 && <Name sight={sight} at={1} />}
        {!sight.order && photos.length === 1 && (
          <span className="basis-full truncate text-ink-2">
            {(photos[0] && leading(photos[0])) ?? 'nothing measured yet'}
          </span>
        )}
      </figcaption>
      <div
        onPointerMoveCapture={sight.moveLoupe}
        {...(sight.isDrawing ? sight.drawing : sight.handlers)}
        className={sight.isDrawing ? 'cursor-crosshair' : ''}
      >
        <PhotoCanvas
          studyId={sight.studyId}
          photos={photos}
          gains={gains}
          tiles={sight.tiles}
          place={sight.place}
          outlines={outlines}
          register={sight.register}
          split={sight.split}
          isStrong={sight.isStrong}
          loupe={sight.loupe}
          mode={mode === 'split' || mode === 'difference' ? mode : 'over'}
          label={
            photos.length > 1
              ? `${plainName(0)} and ${plainName(1)}`
              : `${subject.artefact}, ${subject.view}: ${plainName(at)}`
          }
          height={count > 4 ? 2 : Math.min(3, Math.ceil(count / 2))}
        />
      </div>
    </figure>
  );
}

/** Whose photo it is; a number while names are hidden. */
function Name({ sight, at }: { sight: SideBySideModel; at: number }) {
  const one = sight.shown[at];
  const { marks, reference } = sight.given;
  const mark = marks.find((other) => other.contender_id === one?.contender);
  if (sight.order || !mark || !one) return <b>{at + 1}</b>;
  return (
    <>
      <ContenderName mark={mark} isReference={mark.contender_id === reference} />
      <span className="font-mono text-2xs text-ink-2">{one.code}</span>
    </>
  );
}

/** Which measure says most of what is seen, where there are several. */
const LEADING = ['ringing', 'strings', 'gaps', 'texture', 'layer-lines'] as const;

function leading({ measures }: RectifiedPhoto): string | null {
  const first = LEADING.map((name) => measures.findLast((one) => one.measure === name)).find(
    (one) => one !== undefined,
  );
  return first ? describeMeasure(first) : null;
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

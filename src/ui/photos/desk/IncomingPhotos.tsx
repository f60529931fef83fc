import { LIGHTS, PHOTO_VIEWS } from '../../../core/model/study';
import { Choice } from './choices';
import type { PhotoBench } from './use-photo-desk';

interface OnTheirWayProps {
  bench: PhotoBench;
}

/** The photos that are sent, each with how far it is. */
function OnTheirWay({ bench }: OnTheirWayProps) {
  return (
    <ul className="mt-2 grid gap-1" aria-label="On their way">
      {bench.sending.map((one) => (
        <li key={one.key} className="flex items-center gap-2 text-xs">
          <span className="w-48 truncate font-mono">{one.name}</span>
          {one.message === null ? (
            <>
              <progress className="w-32" value={one.share} max={1} />
              {one.isWaiting && 'waits for the server, and goes on from there'}
            </>
          ) : (
            <>
              <span className="text-warn" role="alert">
                {one.message}
              </span>
              <button
                type="button"
                className="action text-xs"
                onClick={() => bench.desk.forget(one.key)}
              >
                dismiss
              </button>
            </>
          )}
        </li>
      ))}
    </ul>
  );
}

interface IncomingPhotosProps {
  bench: PhotoBench;
  studyId: string;
}

/** Where photos come in, with the view, light and session of the next ones. */
export function IncomingPhotos({ bench, studyId }: IncomingPhotosProps) {
  const { input } = bench;
  return (
    <section
      aria-label="Photos come in"
      className={`mb-3 sheet p-3 ${bench.drop.isOver ? 'outline-2 outline-plum' : ''}`}
    >
      <div className="flex flex-wrap items-end gap-2">
        <button
          type="button"
          className="action min-h-[44px] action-main"
          onClick={() => input.current?.click()}
        >
          {bench.own
            ? `Take or choose photos of ${bench.own.code ?? bench.own.specimen_id}`
            : 'Choose photos'}
        </button>
        <input
          ref={input}
          type="file"
          multiple
          accept="image/jpeg,image/png,image/webp,image/*"
          className="sr-only"
          aria-label="Photos"
          onChange={(event) => {
            bench.take(event.target.files);
            event.target.value = '';
          }}
        />
        <Choice
          label="they show"
          value={bench.told.view}
          options={PHOTO_VIEWS}
          onChange={(view) => bench.setTold({ ...bench.told, view })}
        />
        <Choice
          label="lit"
          value={bench.told.light}
          options={LIGHTS}
          onChange={(light) => bench.setTold({ ...bench.told, light })}
        />
        <label className="text-xs text-ink-2">
          session
          <input
            className="block field w-36"
            value={bench.session}
            placeholder="same lamp and place"
            onChange={(event) => bench.setSession(event.target.value)}
          />
        </label>
        <p className="text-xs text-ink-2">
          {bench.own
            ? `${bench.own.artefact}: what you choose here counts for the next photos`
            : 'or drop them here, hundreds at once; those with a sticker in them file themselves'}{' '}
          · <a href={`/studies/${studyId}/scale-card`}>scale card to print</a>
        </p>
      </div>
      {bench.sending.length > 0 && <OnTheirWay bench={bench} />}
      {bench.desk.message && (
        <p role="alert" className="mt-2 text-warn">
          {bench.desk.message}
        </p>
      )}
    </section>
  );
}

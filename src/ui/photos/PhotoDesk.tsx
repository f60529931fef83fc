import { useRef, useState } from 'react';
import { LIGHTS, PHOTO_VIEWS, counted, type ContenderMark } from '../../core/model/study';
import type { PhotosData, ShownPhoto } from '../../server/photos';
import { callApi } from '../kit/request';
import { useDrop } from '../kit/use-drop';
import { useKeys } from '../kit/use-keys';
import { askedSpecimen } from '../lib/asked-specimen';
import { Badge } from '../marks/Badge';
import { levelAddress, levelFor } from './photo-address';
import { Choice, Keys } from './choices';
import { PhotoMarks } from './PhotoMarks';
import { Thumbs } from './Thumbs';
import { usePhotos } from './use-photos';
import { DeleteWhole, UndoDelete, type Deleted } from '../records/DeleteWhole';

interface PhotoDeskProps extends PhotosData {
  studyId: string;
  marks: readonly ContenderMark[];
  /** The specimen whose photos are taken here, by its id or code: a phone at the bench. */
  asked: string | null;
}

type View = (typeof PHOTO_VIEWS)[number];
type Light = (typeof LIGHTS)[number];

const VIEW_KEYS: Readonly<Record<string, View>> = {
  f: 'front',
  b: 'back',
  l: 'left',
  r: 'right',
  t: 'top',
  u: 'bottom',
  d: 'detail',
};
const keyOfView = (view: View): string =>
  Object.keys(VIEW_KEYS).find((key) => VIEW_KEYS[key] === view) ?? '';

/** Photos come in here: dropped, chosen or taken; filed with a key each; tied to their views. */
export function PhotoDesk({ studyId, marks, specimens, views, asked, ...initial }: PhotoDeskProps) {
  const desk = usePhotos(studyId, initial.photos);
  const { photos, sending } = desk;
  const own = askedSpecimen(specimens, asked);
  const shownPhotos = own
    ? photos.filter((photo) => photo.filed?.specimen_id === own.specimen_id)
    : photos;
  const tray = shownPhotos.filter((photo) => !isFiled(photo));
  const filed = shownPhotos.filter(isFiled);
  const [path, setPath] = useState(() => (tray[0] ?? filed[0])?.path ?? '');
  const [session, setSession] = useState('');
  const [deleted, setDeleted] = useState<Deleted | null>(null);
  const [told, setTold] = useState<{ view: View | ''; light: Light | '' }>({ view: '', light: '' });
  const input = useRef<HTMLInputElement>(null);
  const photo = photos.find((one) => one.path === path) ?? tray[0] ?? filed[0];
  const base = `/studies/${studyId}/photos`;
  const nameOf = (id: string) => specimens.find((one) => one.specimen_id === id)?.code ?? id;
  const markOf = (id: string) =>
    marks.find(
      (mark) => mark.contender_id === specimens.find((one) => one.specimen_id === id)?.contender_id,
    );

  const file = (change: object) =>
    photo
      ? desk.change(() => callApi('PATCH', base, { paths: [photo.path], ...change }))
      : Promise.resolve(false);
  const take = (list: FileList | null) => {
    desk.send([...(list ?? [])], {
      ...(own && { specimen_id: own.specimen_id }),
      ...(told.view && { view: told.view }),
      ...(told.light && { light: told.light }),
      ...(session.trim() && { session: session.trim() }),
    });
  };
  const drop = useDrop((files) => take(files));
  const step = (by: number) => {
    const order = [...tray, ...filed];
    const next = order[order.findIndex((one) => one.path === photo?.path) + by];
    if (next) setPath(next.path);
  };
  /** What the last filed photo says of where this one may belong: the next specimen of its print order. */
  const suggested = suggestionFor(photo, photos, specimens);

  useKeys((event) => {
    if (event.altKey) return null;
    const key = event.key.toLowerCase();
    const view = VIEW_KEYS[key];
    const light =
      event.shiftKey && /^Digit[1-5]$/.test(event.code)
        ? LIGHTS[Number(event.code.slice(5)) - 1]
        : undefined;
    if (key === 'pagedown') return () => step(1);
    if (key === 'pageup') return () => step(-1);
    if (light) return () => void file({ light });
    if (view && photo) return () => void file({ view });
    if (key === 's' && suggested && !photo?.filed) {
      return () => void file({ specimen_id: suggested.specimen_id });
    }
    return null;
  }, 'input, select, textarea, dialog, a, summary');

  const said = photo?.filed ?? photo?.told;
  const mark = photo?.filed && markOf(photo.filed.specimen_id);
  return (
    <div {...drop.handlers}>
      {deleted && (
        <UndoDelete
          studyId={studyId}
          deleted={deleted}
          onRestored={() => {
            setDeleted(null);
            void desk.change(() => Promise.resolve());
          }}
          onDismiss={() => setDeleted(null)}
        />
      )}
      <section
        aria-label="Photos come in"
        className={`mb-3 sheet p-3 ${drop.isOver ? 'outline-2 outline-plum' : ''}`}
      >
        <div className="flex flex-wrap items-end gap-2">
          <button
            type="button"
            className="action min-h-[44px] action-main"
            onClick={() => input.current?.click()}
          >
            {own ? `Take or choose photos of ${own.code ?? own.specimen_id}` : 'Choose photos'}
          </button>
          <input
            ref={input}
            type="file"
            multiple
            accept="image/jpeg,image/png,image/webp,image/*"
            className="sr-only"
            aria-label="Photos"
            onChange={(event) => {
              take(event.target.files);
              event.target.value = '';
            }}
          />
          <Choice
            label="they show"
            value={told.view}
            options={PHOTO_VIEWS}
            onChange={(view) => setTold({ ...told, view })}
          />
          <Choice
            label="lit"
            value={told.light}
            options={LIGHTS}
            onChange={(light) => setTold({ ...told, light })}
          />
          <label className="text-xs text-ink-2">
            session
            <input
              className="block field w-36"
              value={session}
              placeholder="same lamp and place"
              onChange={(event) => setSession(event.target.value)}
            />
          </label>
          <p className="text-xs text-ink-2">
            {own
              ? `${own.artefact}: what is said here counts for the next photos`
              : 'or drop them here, hundreds at once; those with a sticker in them file themselves'}{' '}
            · <a href={`/studies/${studyId}/scale-card`}>scale card to print</a>
          </p>
        </div>
        {sending.length > 0 && (
          <ul className="mt-2 grid gap-1" aria-label="On their way">
            {sending.map((one) => (
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
                      onClick={() => desk.forget(one.key)}
                    >
                      dismiss
                    </button>
                  </>
                )}
              </li>
            ))}
          </ul>
        )}
        {desk.message && (
          <p role="alert" className="mt-2 text-warn">
            {desk.message}
          </p>
        )}
      </section>
      {!photo ? (
        <p className="sheet p-4 text-ink-2">No photos yet.</p>
      ) : (
        <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-3 lg:grid-cols-[230px_minmax(0,1fr)]">
          <div className="grid gap-3 max-lg:order-2">
            <Thumbs
              title={`${counted(tray.length, 'photo')} to be filed`}
              studyId={studyId}
              photos={tray}
              present={photo.path}
              onChoose={setPath}
              sayOf={(one) =>
                one.filed ? `${nameOf(one.filed.specimen_id)} · ${missingOf(one)}` : one.name
              }
            />
            <Thumbs
              title={`${counted(filed.length, 'photo')} filed`}
              studyId={studyId}
              photos={filed}
              present={photo.path}
              onChoose={setPath}
              sayOf={(one) =>
                `${nameOf(one.filed?.specimen_id ?? '')} · ${one.filed?.view}${one.tie ? '' : ' · not tied'}`
              }
            />
          </div>
          <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-3">
            <section className="sheet p-3" aria-labelledby="photo-title">
              <div className="flex flex-wrap items-center gap-2">
                <h2 id="photo-title" className="flex items-center gap-2 font-semibold">
                  {mark && <Badge mark={mark} />}
                  {photo.filed ? nameOf(photo.filed.specimen_id) : 'Of which specimen?'}
                </h2>
                <span className="truncate font-mono text-2xs text-ink-2">{photo.name}</span>
                <span className="text-2xs text-ink-2">
                  {photo.width && `${photo.width} × ${photo.height}`}
                  {photo.taken_at && ` · ${photo.taken_at.slice(0, 16).replace('T', ' ')}`}
                </span>
                <span className="flex gap-1 md:ml-auto">
                  <button type="button" className="action" onClick={() => step(-1)}>
                    <kbd className="key">PgUp</kbd>
                  </button>
                  <button type="button" className="action" onClick={() => step(1)}>
                    Next <kbd className="key">PgDn</kbd>
                  </button>
                </span>
              </div>
              {photo.state === 'failed' && (
                <p role="alert" className="mt-2 text-warn">
                  This photo {photo.message}.
                </p>
              )}
              <div className="mt-2 flex flex-wrap items-end gap-2">
                <label className="text-xs text-ink-2">
                  specimen
                  <select
                    className="block field w-44"
                    value={photo.filed?.specimen_id ?? ''}
                    onChange={(event) => void file({ specimen_id: event.target.value })}
                  >
                    <option value="" disabled>
                      not said
                    </option>
                    {specimens.map((one) => (
                      <option key={one.specimen_id} value={one.specimen_id}>
                        {one.code ?? one.specimen_id} · {one.artefact}
                      </option>
                    ))}
                  </select>
                </label>
                {!photo.filed && suggested && (
                  <button
                    type="button"
                    className="action"
                    data-keys="S"
                    data-does="file the photo under the specimen that is proposed"
                    onClick={() => void file({ specimen_id: suggested.specimen_id })}
                  >
                    {suggested.code ?? suggested.specimen_id} <kbd className="key">S</kbd>
                  </button>
                )}
                <button
                  type="button"
                  className="ml-auto action"
                  onClick={() =>
                    void desk.change(() =>
                      callApi('DELETE', `${base}?path=${encodeURIComponent(photo.path)}`),
                    )
                  }
                >
                  {photo.filed ? 'Remove from this specimen' : 'Delete photo'}
                </button>
                <a
                  className="action"
                  href={`/api/v1${base}/original?path=${encodeURIComponent(photo.path)}`}
                  download
                >
                  Original
                </a>
              </div>
              {photo.filed && (
                <DeleteWhole
                  key={photo.path}
                  studyId={studyId}
                  table="photos"
                  rowKey={[photo.filed.specimen_id, photo.path]}
                  noun="photo"
                  onDeleted={(what) => {
                    setDeleted(what);
                    void desk.change(() => Promise.resolve());
                  }}
                />
              )}
              <div className="mt-2 grid grid-cols-[minmax(0,1fr)] gap-1.5">
                <Keys
                  label="view"
                  value={said?.view ?? null}
                  options={PHOTO_VIEWS.map((view) => ({
                    value: view,
                    key: keyOfView(view).toUpperCase(),
                  }))}
                  onChoose={(view) => void file({ view })}
                />
                <Keys
                  label="light"
                  value={said?.light ?? null}
                  options={LIGHTS.map((light, at) => ({ value: light, key: `⇧${at + 1}` }))}
                  onChoose={(light) => void file({ light })}
                />
                <label className="flex flex-wrap items-center gap-2 text-xs text-ink-2">
                  <span className="w-12">session</span>
                  <input
                    key={photo.path}
                    className="field w-48 py-0.5"
                    defaultValue={said?.session ?? ''}
                    onBlur={(event) => {
                      const value = event.target.value.trim() || null;
                      if (value !== (said?.session ?? null)) void file({ session: value });
                    }}
                  />
                  {photo.tie && photo.filed?.session && (
                    <button
                      type="button"
                      className="action text-left text-xs whitespace-normal"
                      onClick={() =>
                        void desk.change(() =>
                          callApi('POST', `${base}/marks`, { path: photo.path }),
                        )
                      }
                    >
                      Carry its marks over to this session’s other photos of it
                    </button>
                  )}
                </label>
              </div>
            </section>
            {photo.state === 'ready' && photo.filed?.view ? (
              <PhotoMarks
                key={`${photo.path} ${JSON.stringify(photo.marks)}`}
                studyId={studyId}
                photo={photo}
                views={
                  views[
                    specimens.find((one) => one.specimen_id === photo.filed?.specimen_id)
                      ?.artefact_id ?? ''
                  ]
                }
                onKeep={(kept) =>
                  desk.change(() =>
                    callApi('PUT', `${base}/marks`, { path: photo.path, marks: kept }),
                  )
                }
              />
            ) : (
              photo.state === 'ready' && (
                <img
                  className="block max-h-[70vh] w-full sheet object-contain"
                  src={levelAddress(
                    studyId,
                    photo,
                    levelFor(photo.width ?? 1, photo.height ?? 1, 1400),
                  )}
                  alt={`photo ${photo.name}`}
                />
              )
            )}
            {photo.state === 'waiting' && (
              <p className="sheet p-4">The photo is being looked into …</p>
            )}
          </div>
        </div>
      )}
    </div>
  );
}

const isFiled = ({ filed }: ShownPhoto): boolean =>
  filed !== null && filed.view !== null && filed.light !== null;

const missingOf = ({ filed }: ShownPhoto): string =>
  [filed?.view ? null : 'which view?', filed?.light ? null : 'which light?']
    .filter((one) => one !== null)
    .join(' ');

/** The specimen after the one that was filed before this photo; where none was, the first. */
function suggestionFor(
  photo: ShownPhoto | undefined,
  photos: readonly ShownPhoto[],
  specimens: PhotosData['specimens'],
) {
  if (!photo) return undefined;
  const before = photos
    .slice(0, photos.indexOf(photo))
    .findLast((one) => one.filed !== null)?.filed;
  const at = specimens.findIndex((one) => one.specimen_id === before?.specimen_id);
  return specimens[at + 1];
}

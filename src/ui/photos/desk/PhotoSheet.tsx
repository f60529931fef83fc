import { SpecimenPicker } from '../../lib/SpecimenPicker';
import { LIGHTS, PHOTO_VIEWS } from '../../../core/model/study';
import type { PhotosData, ShownPhoto } from '../../../contract/photos';
import { callApi } from '../../kit/request';
import { Badge } from '../../marks/Badge';
import { Keys } from './choices';
import { DeleteWhole } from '../../records/DeleteWhole';
import type { PhotoBench } from './use-photo-desk';
import { keyOfView } from './views';

interface PhotoFactsProps {
  bench: PhotoBench;
  photo: ShownPhoto;
}

/** View, light and session, with a key each. */
function PhotoFacts({ bench, photo }: PhotoFactsProps) {
  const said = photo.filed ?? photo.told;
  return (
    <div className="mt-2 grid grid-cols-[minmax(0,1fr)] gap-1.5">
      <Keys
        label="view"
        value={said?.view ?? null}
        options={PHOTO_VIEWS.map((view) => ({
          value: view,
          key: keyOfView(view).toUpperCase(),
        }))}
        onChoose={(view) => void bench.file({ view })}
      />
      <Keys
        label="light"
        value={said?.light ?? null}
        options={LIGHTS.map((light, at) => ({ value: light, key: `⇧${at + 1}` }))}
        onChoose={(light) => void bench.file({ light })}
      />
      <label className="flex flex-wrap items-center gap-2 text-xs text-ink-2">
        <span className="w-12">session</span>
        <input
          key={photo.path}
          className="field w-48 py-0.5"
          defaultValue={said?.session ?? ''}
          onBlur={(event) => {
            const value = event.target.value.trim() || null;
            if (value !== (said?.session ?? null)) void bench.file({ session: value });
          }}
        />
        {photo.registration && photo.filed?.session && (
          <button
            type="button"
            className="action text-left text-xs whitespace-normal"
            onClick={() =>
              void bench.desk.change(() =>
                callApi('POST', `${bench.base}/marks`, { path: photo.path }),
              )
            }
          >
            Carry its marks over to this session’s other photos of it
          </button>
        )}
      </label>
    </div>
  );
}

interface PhotoPlaceProps {
  photo: ShownPhoto;
  bench: PhotoBench;
  specimens: PhotosData['specimens'];
}

/** Whose photo it is, and taking it away. */
function PhotoPlace({ photo, bench, specimens }: PhotoPlaceProps) {
  const { suggested } = bench;
  return (
    <div className="mt-2 flex flex-wrap items-end gap-2">
      <div className="text-xs text-ink-2">
        specimen
        <SpecimenPicker
          className="block field w-44"
          specimens={specimens}
          value={photo.filed?.specimen_id ?? ''}
          isOpen
          onChoose={(specimen_id) => void bench.file({ specimen_id })}
        />
      </div>
      {!photo.filed && suggested && (
        <button
          type="button"
          className="action"
          data-keys="S"
          data-does="file the photo under the specimen that is proposed"
          onClick={() => void bench.file({ specimen_id: suggested.specimen_id })}
        >
          {suggested.code ?? suggested.specimen_id} <kbd className="key">S</kbd>
        </button>
      )}
      <button
        type="button"
        className="ml-auto action"
        onClick={() =>
          void bench.desk.change(() =>
            callApi('DELETE', `${bench.base}?path=${encodeURIComponent(photo.path)}`),
          )
        }
      >
        {photo.filed ? 'Remove from this specimen' : 'Delete photo'}
      </button>
      <a
        className="action"
        href={`/api/v1${bench.base}/original?path=${encodeURIComponent(photo.path)}`}
        download
      >
        Original
      </a>
    </div>
  );
}

interface PhotoSheetProps {
  photo: ShownPhoto;
  bench: PhotoBench;
  specimens: PhotosData['specimens'];
  studyId: string;
}

/** The photo at hand: whose it is and what it shows. */
export function PhotoSheet({ photo, bench, specimens, studyId }: PhotoSheetProps) {
  const mark = photo.filed && bench.markOf(photo.filed.specimen_id);
  return (
    <section className="sheet p-3" aria-labelledby="photo-title">
      <div className="flex flex-wrap items-center gap-2">
        <h2 id="photo-title" className="flex items-center gap-2 font-semibold">
          {mark && <Badge mark={mark} />}
          {photo.filed ? bench.nameOf(photo.filed.specimen_id) : 'Of which specimen?'}
        </h2>
        <span className="truncate font-mono text-2xs text-ink-2">{photo.name}</span>
        <span className="text-2xs text-ink-2">
          {photo.width && `${photo.width} × ${photo.height}`}
          {photo.taken_at && ` · ${photo.taken_at.slice(0, 16).replace('T', ' ')}`}
        </span>
        <span className="flex gap-1 md:ml-auto">
          <button type="button" className="action" onClick={() => bench.step(-1)}>
            <kbd className="key">PgUp</kbd>
          </button>
          <button type="button" className="action" onClick={() => bench.step(1)}>
            Next <kbd className="key">PgDn</kbd>
          </button>
        </span>
      </div>
      {photo.state === 'failed' && (
        <p role="alert" className="mt-2 text-warn">
          This photo {photo.message}.
        </p>
      )}
      <PhotoPlace photo={photo} bench={bench} specimens={specimens} />
      {photo.filed && (
        <DeleteWhole
          key={photo.path}
          studyId={studyId}
          table="photos"
          rowKey={[photo.filed.specimen_id, photo.path]}
          noun="photo"
          onDeleted={(what) => {
            bench.setDeleted(what);
            void bench.desk.change(() => Promise.resolve());
          }}
        />
      )}
      <PhotoFacts bench={bench} photo={photo} />
    </section>
  );
}

import { counted } from '../../../core/model/study';
import type { ShownPhoto } from '../../../contract/photos';
import { callApi } from '../../kit/request';
import { levelAddress, levelFor } from '../photo-address';
import { PhotoMarks } from './PhotoMarks';
import { Thumbs } from './Thumbs';
import { UndoDelete } from '../../records/DeleteWhole';
import { usePhotoDesk, type PhotoBench, type PhotoDeskProps } from './use-photo-desk';
import { IncomingPhotos } from './IncomingPhotos';
import { PhotoSheet } from './PhotoSheet';

/** Photos come in here: dropped, chosen or taken; filed with a key each; tied to their views. */
export function PhotoDesk(props: PhotoDeskProps) {
  const { studyId, specimens, views } = props;
  const bench = usePhotoDesk(props);
  const { photo } = bench;
  return (
    <div {...bench.drop.handlers}>
      {bench.deleted && (
        <UndoDelete
          studyId={studyId}
          deleted={bench.deleted}
          onRestored={() => {
            bench.setDeleted(null);
            void bench.desk.change(() => Promise.resolve());
          }}
          onDismiss={() => bench.setDeleted(null)}
        />
      )}
      <IncomingPhotos bench={bench} studyId={studyId} />
      {!photo ? (
        <p className="sheet p-4 text-ink-2">No photos yet.</p>
      ) : (
        <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-3 lg:grid-cols-[230px_minmax(0,1fr)]">
          <Tray bench={bench} studyId={studyId} photo={photo} />
          <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-3">
            <PhotoSheet bench={bench} photo={photo} specimens={specimens} studyId={studyId} />
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
                  bench.desk.change(() =>
                    callApi('PUT', `${bench.base}/marks`, { path: photo.path, marks: kept }),
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

interface TrayProps {
  bench: PhotoBench;
  studyId: string;
  photo: ShownPhoto;
}

/** What is to be filed, and what is. */
function Tray({ bench, studyId, photo }: TrayProps) {
  return (
    <div className="grid gap-3 max-lg:order-2">
      <Thumbs
        title={`${counted(bench.tray.length, 'photo')} to be filed`}
        studyId={studyId}
        photos={bench.tray}
        present={photo.path}
        onChoose={bench.setPath}
        describePhoto={(one) =>
          one.filed ? `${bench.nameOf(one.filed.specimen_id)} · ${missingOf(one)}` : one.name
        }
      />
      <Thumbs
        title={`${counted(bench.filed.length, 'photo')} filed`}
        studyId={studyId}
        photos={bench.filed}
        present={photo.path}
        onChoose={bench.setPath}
        describePhoto={(one) =>
          `${bench.nameOf(one.filed?.specimen_id ?? '')} · ${one.filed?.view}${one.registration ? '' : ' · no marks'}`
        }
      />
    </div>
  );
}

const missingOf = ({ filed }: ShownPhoto): string =>
  [filed?.view ? null : 'which view?', filed?.light ? null : 'which light?']
    .filter((one) => one !== null)
    .join(' ');

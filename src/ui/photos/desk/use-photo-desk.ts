import { useRef, useState } from 'react';
import { LIGHTS, type ContenderMark } from '../../../core/model/study';
import type { PhotosData, ShownPhoto } from '../../../contract/photos';
import { callApi } from '../../kit/request';
import { useDrop } from '../../kit/use-drop';
import { useKeys } from '../../kit/use-keys';
import { askedSpecimen } from '../../lib/asked-specimen';
import { usePhotos } from '../use-photos';
import type { Deleted } from '../../records/DeleteWhole';
import { type View, VIEW_KEYS } from './views';

export interface PhotoDeskProps extends PhotosData {
  studyId: string;
  marks: readonly ContenderMark[];
  /** The specimen whose photos are taken here, by its id or code: a phone at the bench. */
  asked: string | null;
}

/** The tray, the photo at hand, the facts of those that come, and what the keys do. */
export function usePhotoDesk(props: PhotoDeskProps) {
  const { studyId, specimens, asked, marks } = props;
  const desk = usePhotos(studyId, props.photos);
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
  return {
    desk,
    sending,
    own,
    tray,
    filed,
    setPath,
    session,
    setSession,
    deleted,
    setDeleted,
    told,
    setTold,
    input,
    photo,
    base,
    nameOf,
    markOf,
    file,
    take,
    drop,
    step,
    suggested,
  };
}

export type PhotoBench = ReturnType<typeof usePhotoDesk>;

const isFiled = ({ filed }: ShownPhoto): boolean =>
  filed !== null && filed.view !== null && filed.light !== null;

type Light = (typeof LIGHTS)[number];

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

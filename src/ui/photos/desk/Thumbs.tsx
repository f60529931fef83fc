import type { ShownPhoto } from '../../../contract/photos';
import { levelAddress, levelFor } from '../photo-address';

const THUMB = 512;

interface ThumbsProps {
  title: string;
  studyId: string;
  photos: readonly ShownPhoto[];
  present: string;
  onChoose: (path: string) => void;
  describePhoto: (photo: ShownPhoto) => string;
}

/** Small photos to choose one of. */
export function Thumbs({ title, studyId, photos, present, onChoose, describePhoto }: ThumbsProps) {
  return (
    <section className="sheet p-2" aria-label={title}>
      <h2 className="mb-1 text-xs font-semibold text-ink-2">{title}</h2>
      <ul className="grid max-h-[46vh] grid-cols-2 gap-1 overflow-y-auto max-lg:grid-cols-3">
        {photos.map((photo) => (
          <li key={photo.path}>
            <button
              type="button"
              aria-pressed={photo.path === present}
              className="block w-full border border-line text-left aria-pressed:border-plum aria-pressed:outline-2 aria-pressed:outline-plum"
              onClick={() => onChoose(photo.path)}
            >
              {photo.state === 'ready' ? (
                <img
                  loading="lazy"
                  className="block aspect-[4/3] w-full bg-desk object-cover"
                  src={levelAddress(
                    studyId,
                    photo,
                    levelFor(photo.width ?? 1, photo.height ?? 1, THUMB),
                  )}
                  alt=""
                />
              ) : (
                <span className="block aspect-[4/3] w-full bg-desk p-1 text-2xs text-ink-2">
                  {photo.state === 'failed' ? 'cannot be read' : 'being looked into …'}
                </span>
              )}
              <span className="block truncate px-1 text-2xs">{describePhoto(photo)}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

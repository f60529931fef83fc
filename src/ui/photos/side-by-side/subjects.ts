import type { ContenderMark } from '../../../core/model/study';
import type { PhotosData, ShownPhoto } from '../../../contract/photos';
import { hasRectification, type RectifiedPhoto } from '../tiles';

/** The same view in the same light: what can stand side by side. */
export interface Subject {
  key: string;
  artefact_id: string;
  artefact: string;
  view: string;
  light: string;
  photos: { photo: RectifiedPhoto; contender: string; code: string }[];
}

/** What can stand side by side among the photos of a study, what shows most first. */
export function subjectsOf(
  photos: readonly ShownPhoto[],
  specimens: PhotosData['specimens'],
  marks: readonly ContenderMark[],
): Subject[] {
  const bySpecimen = new Map(specimens.map((one) => [one.specimen_id, one]));
  const found = new Map<string, Subject>();
  for (const photo of photos) {
    const specimen = bySpecimen.get(photo.filed?.specimen_id ?? '');
    if (!specimen || !photo.filed?.view || !hasRectification(photo)) continue;
    if (!marks.some((mark) => mark.contender_id === specimen.contender_id)) continue;
    const { view } = photo.filed;
    const light = photo.filed.light ?? 'unknown';
    const key = `${specimen.artefact_id}/${view}/${light}`;
    const subject = found.get(key) ?? {
      key,
      view,
      light,
      photos: [],
      artefact_id: specimen.artefact_id,
      artefact: specimen.artefact,
    };
    subject.photos.push({
      photo,
      contender: specimen.contender_id,
      code: specimen.code ?? specimen.specimen_id,
    });
    found.set(key, subject);
  }
  const place = new Map(marks.map((mark, at) => [mark.contender_id, at]));
  return [...found.values()]
    .map((subject) => ({
      ...subject,
      photos: oneEachFirst(
        subject.photos.toSorted(
          (a, b) => (place.get(a.contender) ?? 0) - (place.get(b.contender) ?? 0),
        ),
      ),
    }))
    .sort((a, b) => rank(b) - rank(a));
}

/** Raking light shows most, and more photos more. */
const rank = ({ light, photos }: Subject): number =>
  photos.length + (light.startsWith('raking') ? 100 : 0);

/** The first photo of every contender, then the others. */
function oneEachFirst(photos: Subject['photos']): Subject['photos'] {
  const isFirst = photos.map(
    ({ contender }, at) => photos.findIndex((one) => one.contender === contender) === at,
  );
  return [...photos.filter((_, at) => isFirst[at]), ...photos.filter((_, at) => !isFirst[at])];
}

import { lightInWords } from '../../core/answers/figure-names';
import { inWords, type ContenderMark } from '../../core/model/study';
import { ContenderName } from '../marks/ContenderName';
import { tileAddress } from '../photos/photo-address';
import type { RectifiedPhoto } from '../photos/tiles';

interface SamePlaceProps {
  studyId: string;
  marks: readonly ContenderMark[];
  reference: string | null;
  /** By view and light of an artefact, one photo of each contender. */
  subjects: readonly {
    key: string;
    artefact: string;
    view: string;
    light: string;
    photos: readonly { contender: string; code: string; photo: RectifiedPhoto }[];
  }[];
}

/** The same view of everyone, small; what is looked into is looked into side by side. */
export function SamePlace({ studyId, marks, reference, subjects }: SamePlaceProps) {
  if (subjects.length === 0) return null;
  return (
    <section className="min-w-0 sheet" aria-labelledby="same-place">
      <h2 id="same-place" className="border-b border-line px-3 py-2 font-semibold">
        The same place on every contender
      </h2>
      {subjects.map(({ key, artefact, view, light, photos }) => (
        <div key={key} className="border-b border-line-soft px-3 py-2">
          <p className="mb-1 flex flex-wrap gap-2 text-xs">
            <b>
              {artefact}, {inWords(view)}
            </b>
            <span className="text-ink-2">{lightInWords(light)}</span>
            <a
              href={`/studies/${studyId}/inspect/side-by-side#of=${encodeURIComponent(key)}`}
              className="ml-auto"
            >
              look into it side by side
            </a>
          </p>
          <ul className="grid grid-cols-2 gap-2 sm:grid-cols-3 lg:grid-cols-6">
            {marks.map((mark) => {
              const own = photos.find((one) => one.contender === mark.contender_id);
              return (
                <li key={mark.contender_id} className="min-w-0 text-xs">
                  {own ? (
                    <img
                      loading="lazy"
                      className="block w-full"
                      src={tileAddress(studyId, own.photo, own.photo.laid.edition, {
                        level: own.photo.laid.levels - 1,
                        column: 0,
                        row: 0,
                      })}
                      alt={`${artefact}, ${view}, ${lightInWords(light)}: ${mark.contender_id} ${own.code}`}
                    />
                  ) : (
                    <span className="block min-h-16 w-full unknown p-1 text-ink-2">no photo</span>
                  )}
                  <ContenderName mark={mark} isReference={mark.contender_id === reference} />
                </li>
              );
            })}
          </ul>
        </div>
      ))}
    </section>
  );
}

import type { ViewBox } from '../../core/measures/image';
import { zoneBox } from '../../core/measures/surface';
import { LIGHTS, PHOTO_VIEWS, type PanelKind } from '../../core/model/study';
import type { BenchZone } from '../../contract/inspect';
import type { PanelDraft, PanelPage } from '../../contract/panels';
import type { PhotosData } from '../../contract/photos';
import type { Subject } from '../photos/side-by-side/subjects';

/** A specimen that can stand for its contender. */
export interface Candidate {
  specimen_id: string;
  code: string;
  contender_id: string;
  path: string | null;
}

/** What each kind asks, as an organiser reads it, and how judges might be asked. */
export const KINDS: readonly { kind: PanelKind; title: string; says: string; example: string }[] = [
  {
    kind: 'paired',
    title: 'Which is better?',
    says: 'Two at a time. Judges choose the better one, or say that they see no difference.',
    example: 'On which one is the wall smoother?',
  },
  {
    kind: 'triangle',
    title: 'Can people see a difference?',
    says: 'Three at a time, two of one contender. Judges find the odd one: by guessing alone one in three is right.',
    example: 'Which one is not like the other two?',
  },
  {
    kind: 'guess',
    title: 'Can people name which is which?',
    says: 'Two at a time, one of them of the contender asked after. By guessing alone one in two is right.',
    example: 'Which one was printed the slow way?',
  },
];

/** A panel that is planned anew. */
export const newDraft = (artefactId: string | null): PanelDraft => ({
  panel_id: null,
  kind: 'paired',
  aspect: '',
  artefact_id: artefactId,
  target: null,
  shown_as: 'photos',
  names: 'numbers',
  view: null,
  light: null,
  levels: 'as-taken',
  x_mm: null,
  y_mm: null,
  w_mm: null,
  h_mm: null,
  judges: 12,
  questions: 3,
  asked_again: 1,
  effect: null,
  closes_at: null,
  items: [],
});

/** A kept panel as it is planned on. */
export function draftOf({ panel, setup, items }: PanelPage): PanelDraft {
  const { row_version: _, ...own } = panel;
  const base = { ...newDraft(panel.artefact_id), ...own };
  if (!setup) return base;
  const {
    panel_id: __,
    row_version: ___,
    opened_at: ____,
    closed_at: _____,
    closed_by: ______,
    revealed_at: _______,
    ...held
  } = setup;
  return { ...base, ...held, items: items.map(({ specimen_id, path }) => ({ specimen_id, path })) };
}

/** What could be shown of an artefact: its photos of one view in one light, or its parts. */
export function candidatesOf(
  draft: Pick<PanelDraft, 'shown_as' | 'artefact_id'>,
  subject: Subject | undefined,
  specimens: readonly {
    specimen_id: string;
    code: string | null;
    contender_id: string;
    artefact_id: string;
  }[],
): Candidate[] {
  if (draft.shown_as === 'photos') {
    return (subject?.photos ?? []).map(({ photo, contender, code }) => ({
      specimen_id: photo.filed?.specimen_id ?? '',
      code,
      contender_id: contender,
      path: photo.path,
    }));
  }
  return specimens
    .filter((one) => one.artefact_id === draft.artefact_id)
    .map(({ specimen_id, code, contender_id }) => ({
      specimen_id,
      code: code ?? specimen_id,
      contender_id,
      path: null,
    }));
}

/** The place of a draft; null where none is drawn. */
export const placeOfDraft = ({ x_mm, y_mm, w_mm, h_mm }: PanelDraft): ViewBox | null =>
  x_mm === null || y_mm === null || w_mm === null || h_mm === null
    ? null
    : { x: x_mm, y: y_mm, w: w_mm, h: h_mm };

/** Everything that can be shown of a subject, or of the parts themselves. */
export const allItems = (
  of: PanelDraft,
  subject: Subject | undefined,
  specimens: PhotosData['specimens'],
): PanelDraft['items'] =>
  candidatesOf(of, subject, specimens).map(({ specimen_id, path }) => ({ specimen_id, path }));

/** A draft that shows photos of a subject: its largest zone on that side, else the whole photo. */
export function draftOfPhotos(
  of: PanelDraft,
  subject: Subject,
  zones: Readonly<Record<string, readonly BenchZone[]>>,
  specimens: PhotosData['specimens'],
): PanelDraft {
  const { artefact_id, view, light, photos } = subject;
  const box = zonePlace(zones[artefact_id] ?? [], view) ?? photos[0]?.photo.laid.box ?? null;
  const next = {
    ...of,
    shown_as: 'photos',
    artefact_id,
    view: PHOTO_VIEWS.find((one) => one === view) ?? null,
    light: LIGHTS.find((one) => one === light) ?? null,
    x_mm: box?.x ?? null,
    y_mm: box?.y ?? null,
    w_mm: box?.w ?? null,
    h_mm: box?.h ?? null,
  } satisfies PanelDraft;
  return { ...next, items: allItems(next, subject, specimens) };
}

/** A new panel begins with the view that shows most, of all contenders, and asks each judge about every pair. */
export function begunDraft(
  subjects: readonly Subject[],
  artefact: string | null,
  zones: Readonly<Record<string, readonly BenchZone[]>>,
  specimens: PhotosData['specimens'],
): PanelDraft {
  const [best] = subjects;
  const bare = newDraft(best?.artefact_id ?? artefact);
  const parts: PanelDraft = { ...bare, shown_as: 'parts' };
  const first = best
    ? draftOfPhotos(bare, best, zones, specimens)
    : { ...parts, items: allItems(parts, undefined, specimens) };
  const owners = new Set(candidatesOf(first, best, specimens).map((one) => one.contender_id)).size;
  return { ...first, questions: Math.max(1, Math.min(12, (owners * (owners - 1)) / 2)) };
}

/** The largest zone that lies on a side: what is graded there is what people look at. */
function zonePlace(zones: readonly BenchZone[], view: string) {
  const boxes = zones.flatMap(({ place }) => (place?.side === view ? [zoneBox(place)] : []));
  return boxes.sort((a, b) => b.w * b.h - a.w * a.h)[0] ?? null;
}

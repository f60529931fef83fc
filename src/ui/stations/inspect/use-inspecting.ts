import { inWords, type ContenderMark, type Row } from '../../../core/model/study';
import type { InspectBenchData } from '../../../contract/inspect';
import type { ShownPhoto } from '../../../contract/photos';
import type { RectifiedPhoto } from '../../photos/tiles';
import type { ViewBox } from '../../../core/measures/image';
import { nearest } from '../../kit/event-target';
import { useState, type SetStateAction, type Dispatch } from 'react';
import { usePhotos } from '../../photos/use-photos';
import { askedSpecimen } from '../../lib/asked-specimen';
import { OPERATOR_KEY } from '../../lib/operator';
import { useKeys } from '../../kit/use-keys';
import { useRemembered } from '../../lib/remembered';
import { defectsFor, type Defect } from './defect-search';
import { useWords, type Words } from './use-words';

interface InspectingGiven {
  studyId: string;
  initial: { photos: readonly ShownPhoto[] };
  specimens: InspectBenchProps['specimens'];
  asked: InspectBenchProps['asked'];
  zones: InspectBenchProps['zones'];
  askedZone: InspectBenchProps['askedZone'];
  aftercare: InspectBenchProps['aftercare'];
}

/** The defect that is typed by its first letters, and what is to be said of that. */
function useDefectSearch() {
  const [typed, setTyped] = useState('');
  const [chosen, setChosen] = useState(0);
  const [hint, setHint] = useState('');
  const type = (letters: string) => {
    setTyped(letters);
    setChosen(0);
    setHint('');
  };
  const choose = (defect: Defect) => {
    const letters = inWords(defect).split(/[ -]/)[0] ?? '';
    setTyped(letters);
    setChosen(defectsFor(letters).indexOf(defect));
    setHint('');
  };
  const candidates = typed === '' ? [] : defectsFor(typed);
  return { typed, type, chosen, setChosen, choose, candidates, hint, setHint };
}

/** The specimen and the zone at hand, their findings, and what the keys do. */
export function useInspecting({
  studyId,
  initial,
  specimens,
  asked,
  zones,
  askedZone,
  aftercare,
}: InspectingGiven) {
  const [inspector] = useRemembered(OPERATOR_KEY);
  // Photos that are still being laid flat come as soon as they are.
  const { photos } = usePhotos(studyId, initial.photos);
  const words = useWords(studyId, inspector.trim());
  const hand = usePlaceAtHand({ specimens, asked, zones, askedZone });
  const { specimenId, setSpecimenId, setPlace, zone } = hand;
  const [care, setCare] = useState<readonly Row<'aftercare'>[]>(aftercare);
  const search = useDefectSearch();
  const { typed, type, chosen, setChosen, candidates, setHint } = search;
  const zoneWords = gradingOf({ specimens, zones, hand, words, search });
  const { word, toSpecimen, toZone, grade, clean, undo } = zoneWords;
  useInspectKeys({
    words,
    candidates,
    chosen,
    grade,
    setHint,
    typed,
    clean,
    type,
    undo,
    toZone,
    setChosen,
    toSpecimen,
  });
  return {
    inspector,
    photos,
    words,
    ...search,
    ...hand,
    ...zoneWords,
    care,
    openSpecimen: (id: string) => {
      setSpecimenId(id);
      setPlace(0);
      type('');
    },
    openZone: (at: number) => {
      setPlace(at);
      type('');
    },
    /** Says where the last finding is: a box that was dragged on a photo. */
    placeLast: ({ x, y, w, h }: ViewBox, photo: RectifiedPhoto) => {
      const last = word?.at(-1);
      if (!word || !last || !zone) {
        return setHint('First the defect and its grade; then where it is.');
      }
      const view = photo.filed?.view ?? null;
      const box = { view, path: photo.path, x_mm: x, y_mm: y, w_mm: w, h_mm: h };
      words.say(specimenId, zone.zone_id, [...word.slice(0, -1), { ...last, ...box }]);
    },
    keepCare: (row: Row<'aftercare'>) =>
      setCare((rows) => [
        ...rows.filter(
          (one) =>
            one.specimen_id !== row.specimen_id ||
            one.kind !== row.kind ||
            one.operator !== row.operator,
        ),
        row,
      ]),
  };
}

interface GradingGiven {
  specimens: InspectingGiven['specimens'];
  zones: InspectingGiven['zones'];
  hand: ReturnType<typeof usePlaceAtHand>;
  words: Words;
  search: ReturnType<typeof useDefectSearch>;
}

/** The findings of the zone at hand, and going on to the next. */
function gradingOf({ specimens, zones, hand, words, search }: GradingGiven) {
  const { specimenId, setSpecimenId, place, setPlace, own, zone } = hand;
  const { type, setHint } = search;
  const word = zone && words.of(specimenId, zone.zone_id);
  const toSpecimen = (by: number) => {
    const next = specimens[specimens.findIndex((one) => one.specimen_id === specimenId) + by];
    if (!next) return setHint(by > 0 ? 'That was the last specimen.' : 'This is the first one.');
    setSpecimenId(next.specimen_id);
    setPlace(0);
    type('');
  };
  const toZone = (by: number) => {
    const next = place + by;
    if (next >= own.length) return toSpecimen(1);
    setPlace(Math.max(0, next));
    type('');
  };
  const grade = (defect: Defect, value: number) => {
    if (!zone) return;
    const said = word ?? [];
    const isKnown = said.some((one) => one.defect === defect);
    words.say(
      specimenId,
      zone.zone_id,
      isKnown
        ? said.map((one) => (one.defect === defect ? { ...one, grade: value } : one))
        : [...said, { ...NEW, defect, grade: value }],
    );
    type('');
  };
  const clean = () => {
    if (!zone) return;
    words.say(specimenId, zone.zone_id, []);
    toZone(1);
  };
  const undo = () => {
    const back = words.undo();
    if (!back) return setHint('There is nothing here to undo.');
    const artefact = specimens.find((one) => one.specimen_id === back.specimen)?.artefact_id ?? '';
    setSpecimenId(back.specimen);
    setPlace((zones[artefact] ?? []).findIndex((one) => one.zone_id === back.zone));
    type('');
  };
  return { word, toSpecimen, toZone, grade, clean, undo };
}

interface PlaceAtHandGiven {
  specimens: InspectingGiven['specimens'];
  asked: InspectingGiven['asked'];
  zones: InspectingGiven['zones'];
  askedZone: InspectingGiven['askedZone'];
}

/** Where to begin: at the specimen and the zone that the address asks for. */
function usePlaceAtHand({ specimens, asked, zones, askedZone }: PlaceAtHandGiven) {
  const [specimenId, setSpecimenId] = useState(
    () => askedSpecimen(specimens, asked)?.specimen_id ?? specimens[0]?.specimen_id ?? '',
  );
  const [place, setPlace] = useState(() => {
    const first = specimens.find((one) => one.specimen_id === specimenId);
    const at = (first ? (zones[first.artefact_id] ?? []) : []).findIndex(
      (one) => one.zone_id === askedZone,
    );
    return Math.max(0, at);
  });
  const specimen = specimens.find((one) => one.specimen_id === specimenId);
  const own = specimen ? (zones[specimen.artefact_id] ?? []) : [];
  return { specimen, specimenId, setSpecimenId, place, setPlace, own, zone: own[place] };
}

interface InspectKeysGiven {
  words: Words;
  candidates: readonly Defect[];
  chosen: number;
  grade: (defect: Defect, value: number) => void;
  setHint: Dispatch<SetStateAction<string>>;
  typed: string;
  clean: () => void;
  type: (letters: string) => void;
  undo: () => void;
  toZone: (by: number) => void;
  setChosen: Dispatch<SetStateAction<number>>;
  toSpecimen: (by: number) => void;
}

/** A letter searches a defect, a digit grades it, arrows go on. */
function useInspectKeys({
  words,
  candidates,
  chosen,
  grade,
  setHint,
  typed,
  clean,
  type,
  undo,
  toZone,
  setChosen,
  toSpecimen,
}: InspectKeysGiven) {
  useKeys((event) => {
    if (!words.isReady || event.altKey) return null;
    const key = event.key.toLowerCase();
    if (key === 'enter' && nearest(event, 'button')) return null;
    const candidate = candidates[chosen];
    if (/^[0-4]$/.test(key)) {
      return candidate
        ? () => grade(candidate, Number(key))
        : () => setHint('First the defect, by its first letters; then the grade.');
    }
    if (key === 'c' && typed === '') return clean;
    if (/^[a-z]$/.test(key)) return () => type(typed + key);
    const keys: Record<string, () => void> = {
      backspace: () => (typed === '' ? undo() : type(typed.slice(0, -1))),
      escape: () => type(''),
      enter: () => toZone(1),
      arrowdown: () =>
        candidates.length > 0 ? setChosen((chosen + 1) % candidates.length) : toZone(1),
      arrowup: () =>
        candidates.length > 0
          ? setChosen((chosen + candidates.length - 1) % candidates.length)
          : toZone(-1),
      pagedown: () => toSpecimen(1),
      pageup: () => toSpecimen(-1),
    };
    return keys[key] ?? null;
  }, 'input, select, textarea, dialog, a, summary');
}

export type Inspecting = ReturnType<typeof useInspecting>;

const NEW = {
  cause: null,
  note: null,
  view: null,
  x_mm: null,
  y_mm: null,
  w_mm: null,
  h_mm: null,
  path: null,
};

export interface InspectBenchProps extends InspectBenchData {
  studyId: string;
  marks: readonly ContenderMark[];
  asked: string | null;
  askedZone: string | null;
  photos: readonly ShownPhoto[];
}

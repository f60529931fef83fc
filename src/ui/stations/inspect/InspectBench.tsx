import { nearest } from '../../kit/event-target';
import { useState } from 'react';
import { inWords, type ContenderMark, type Row } from '../../../core/model/study';
import type { InspectBenchData } from '../../../server/inspect/page';
import type { ShownPhoto } from '../../../server/photos';
import { isLaidFlat } from '../../photos/tiles';
import { usePhotos } from '../../photos/use-photos';
import { askedSpecimen } from '../../lib/asked-specimen';
import { OPERATOR_KEY } from '../../lib/operator';
import { useKeys } from '../../kit/use-keys';
import { useRemembered } from '../../lib/remembered';
import { Badge } from '../../marks/Badge';
import { defectsFor, type Defect } from './defect-search';
import { FoundHere } from './FoundHere';
import { GradeLook } from './GradeLook';
import { GRADES } from './grades';
import { useWords } from './use-words';
import { AfterWorkClock } from './AfterWorkClock';
import { ZoneDrawing } from './ZoneDrawing';
import { ZoneList } from './ZoneList';
import { ZonePhoto } from './ZonePhoto';

interface InspectBenchProps extends InspectBenchData {
  studyId: string;
  marks: readonly ContenderMark[];
  asked: string | null;
  askedZone: string | null;
  photos: readonly ShownPhoto[];
}

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

/** Zone by zone, specimen by specimen: a defect by its first letters, then its grade. */
export function InspectBench({
  studyId,
  marks,
  specimens,
  zones,
  drawings,
  aftercare,
  asked,
  askedZone,
  ...initial
}: InspectBenchProps) {
  const [inspector] = useRemembered(OPERATOR_KEY);
  // Photos that are still being laid flat come as soon as they are.
  const { photos } = usePhotos(studyId, initial.photos);
  const words = useWords(studyId, inspector.trim());
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
  const [care, setCare] = useState<readonly Row<'aftercare'>[]>(aftercare);
  const [typed, setTyped] = useState('');
  const [chosen, setChosen] = useState(0);
  const [hint, setHint] = useState('');
  const specimen = specimens.find((one) => one.specimen_id === specimenId);
  const own = specimen ? (zones[specimen.artefact_id] ?? []) : [];
  const zone = own[place];
  const word = zone && words.of(specimenId, zone.zone_id);
  const candidates = typed === '' ? [] : defectsFor(typed);

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
    if (!back) return setHint('Nothing was said here that could be taken back.');
    const artefact = specimens.find((one) => one.specimen_id === back.specimen)?.artefact_id ?? '';
    setSpecimenId(back.specimen);
    setPlace((zones[artefact] ?? []).findIndex((one) => one.zone_id === back.zone));
    type('');
  };

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

  if (!specimen) {
    return (
      <p className="sheet p-4">
        Nothing to inspect yet: a specimen comes from a finished print of an artefact that has
        zones.
      </p>
    );
  }
  const mark = marks.find((one) => one.contender_id === specimen.contender_id);
  const sides = drawings[specimen.artefact_id];
  const seen = photos
    .filter(isLaidFlat)
    .filter(({ filed }) => filed?.specimen_id === specimenId && filed.view === zone?.place?.side);
  const done = own.filter((one) => words.of(specimenId, one.zone_id) !== undefined).length;
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="text-lg font-semibold">Inspect</h1>
        {mark && <Badge mark={mark} />}
        <select
          className="field w-auto"
          aria-label="Specimen"
          value={specimen.specimen_id}
          onChange={(event) => {
            setSpecimenId(event.target.value);
            setPlace(0);
            type('');
          }}
        >
          {specimens.map((one) => (
            <option key={one.specimen_id} value={one.specimen_id}>
              {one.code ?? one.specimen_id} · {one.artefact}
            </option>
          ))}
        </select>
        <span className="text-xs text-ink-2">
          {done} of {own.length} zones looked at{inspector && ` by ${inspector}`}
        </span>
        <a
          className="action md:ml-auto"
          href={`/studies/${studyId}/inspect/photos?specimen=${encodeURIComponent(specimen.specimen_id)}`}
        >
          Photos of it
        </a>
        <button type="button" className="action" onClick={() => toSpecimen(1)}>
          Next specimen <kbd className="key">PgDn</kbd>
        </button>
      </div>
      {inspector.trim() === '' ? (
        <p className="sheet border-warn bg-warn-soft p-3">
          Who inspects? Write your initials at the top right, beside “at the bench”: every inspector
          grades for themselves, without seeing the others.
        </p>
      ) : (
        <div className="grid items-start gap-3 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
          <div className="grid gap-3">
            {zone && seen.length > 0 ? (
              <ZonePhoto
                key={specimenId}
                studyId={studyId}
                zone={zone}
                photos={seen}
                findings={word ?? []}
                onBox={({ x, y, w, h }, photo) => {
                  const last = word?.at(-1);
                  if (!word || !last)
                    return setHint('First the defect and its grade; then where it is.');
                  const box = {
                    view: photo.filed?.view ?? null,
                    path: photo.path,
                    x_mm: x,
                    y_mm: y,
                    w_mm: w,
                    h_mm: h,
                  };
                  words.say(specimenId, zone.zone_id, [...word.slice(0, -1), { ...last, ...box }]);
                }}
              />
            ) : (
              sides && (
                <ZoneDrawing
                  artefact={specimen.artefact}
                  sides={sides}
                  zones={own}
                  present={zone?.zone_id ?? null}
                  onChoose={(id) => setPlace(own.findIndex((one) => one.zone_id === id))}
                />
              )
            )}
            <ZoneList
              zones={own}
              present={place}
              wordOf={(id) => words.of(specimenId, id)}
              onChoose={(at) => {
                setPlace(at);
                type('');
              }}
            />
          </div>
          {zone && (
            <section
              className="sheet p-3"
              aria-labelledby="present-zone"
              aria-busy={!words.isReady}
            >
              <h2 id="present-zone" className="font-semibold">
                {zone.name} <span className="font-normal text-ink-2">{specimen.artefact}</span>
              </h2>
              <p className="mt-2 flex min-h-10 flex-wrap items-center gap-2">
                <span className="text-xs text-ink-2">defect</span>
                <output className="min-w-24 border-b-2 border-plum px-1 font-mono text-lg">
                  {typed || <span className="text-sm text-ink-2">type its first letters</span>}
                </output>
                <button
                  type="button"
                  className="action md:ml-auto"
                  data-keys="C"
                  data-does="the zone is clean"
                  onClick={clean}
                >
                  Clean <kbd className="key">C</kbd>
                </button>
                <button
                  type="button"
                  className="action"
                  data-keys="⌫"
                  data-does="take the last word back"
                  onClick={undo}
                >
                  Undo <kbd className="key">⌫</kbd>
                </button>
              </p>
              <ul className="flex min-h-9 flex-wrap gap-1" aria-label="Defects">
                {(typed === '' ? defectsFor('') : candidates).map((defect, at) => (
                  <li key={defect}>
                    <button
                      type="button"
                      aria-pressed={typed !== '' && at === chosen}
                      className={`min-h-[28px] rounded-sm border px-2 text-xs ${
                        typed !== '' && at === chosen ? 'border-plum bg-plum-soft' : 'border-line'
                      }`}
                      onClick={() => choose(defect)}
                    >
                      {inWords(defect)}
                    </button>
                  </li>
                ))}
                {typed !== '' && candidates.length === 0 && (
                  <li className="text-warn">No defect begins with “{typed}”.</li>
                )}
              </ul>
              <div
                className="mt-2 grid grid-cols-2 gap-1.5 sm:grid-cols-5"
                role="group"
                aria-label="Grade"
              >
                {GRADES.map(({ grade: value, word: name, meaning }) => (
                  <button
                    key={value}
                    type="button"
                    className="action min-h-[44px] flex-col items-start justify-start gap-0 py-1 text-left whitespace-normal"
                    data-keys={String(value)}
                    data-does={`grade ${value}: ${name}`}
                    disabled={candidates[chosen] === undefined}
                    onClick={() => {
                      const candidate = candidates[chosen];
                      if (candidate) grade(candidate, value);
                    }}
                  >
                    {candidates[chosen] && <GradeLook defect={candidates[chosen]} grade={value} />}
                    <span>
                      <kbd className="key">{value}</kbd> {name}
                    </span>
                    <span className="text-2xs font-normal text-ink-2">{meaning}</span>
                  </button>
                ))}
              </div>
              <FoundHere
                word={word}
                onChange={(next) => words.say(specimenId, zone.zone_id, next)}
              />
              <p role="status" className="mt-2 min-h-5 text-warn">
                {words.message || hint}
              </p>
            </section>
          )}
        </div>
      )}
      <AfterWorkClock
        key={`${specimenId} ${inspector}`}
        studyId={studyId}
        specimenId={specimenId}
        operator={inspector.trim()}
        known={care}
        onKept={(row) =>
          setCare((rows) => [
            ...rows.filter(
              (one) =>
                one.specimen_id !== row.specimen_id ||
                one.kind !== row.kind ||
                one.operator !== row.operator,
            ),
            row,
          ])
        }
      />
    </>
  );
}

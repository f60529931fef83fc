import { useMemo, useState } from 'react';
import { couplesOf, usualAim } from '../../core/measures/panels';
import { inWords, type ContenderMark } from '../../core/model/study';
import { zoneBox } from '../../core/measures/surface';
import type { BenchZone } from '../../server/inspect/page';
import type { PanelDraft, PanelPage } from '../../server/panels';
import type { PhotosData } from '../../server/photos';
import { callApi } from '../kit/request';
import { useTrying } from '../kit/use-trying';
import { ContenderName } from '../marks/ContenderName';
import { subjectsOf } from '../photos/subjects';
import {
  candidatesOf,
  draftOf,
  KINDS,
  newDraft,
  placeOfDraft,
  type Candidate,
} from './panel-draft';
import { PlacePicker } from './PlacePicker';
import { PowerCurve } from './PowerCurve';

interface PanelPlannerProps extends PhotosData {
  studyId: string;
  marks: readonly ContenderMark[];
  zones: Record<string, BenchZone[]>;
  /** The panel as it is planned so far; null for a new one. */
  page: PanelPage | null;
}

/** Plans a blind panel: what is asked, what is shown of whom, to how many. */
export function PanelPlanner(props: PanelPlannerProps) {
  const { studyId, marks, specimens, zones, page } = props;
  const subjects = useMemo(
    () => subjectsOf(props.photos, specimens, marks),
    [props.photos, specimens, marks],
  );
  const artefacts = useMemo(
    () => [...new Map(specimens.map((one) => [one.artefact_id, one.artefact]))],
    [specimens],
  );
  const [draft, setDraft] = useState<PanelDraft>(() => (page ? draftOf(page) : begun()));
  const [kept, setKept] = useState(page?.panel.panel_id ?? null);
  const { message, isBusy, attempt } = useTrying();
  const set = (change: Partial<PanelDraft>) => setDraft((before) => ({ ...before, ...change }));
  const isOfPhotos = draft.shown_as === 'photos';
  const subject = subjects.find(
    (one) =>
      one.artefact_id === draft.artefact_id && one.view === draft.view && one.light === draft.light,
  );
  const candidates = candidatesOf(draft, subject, specimens);
  const chosen = new Set(draft.items.map((one) => one.specimen_id));
  const place = placeOfDraft(draft);
  const inIt = marks.flatMap((mark) => {
    const own = candidates.filter(
      (one) => one.contender_id === mark.contender_id && chosen.has(one.specimen_id),
    );
    return own.length > 0
      ? [{ contender_id: mark.contender_id, specimens: own.map((one) => one.specimen_id) }]
      : [];
  });
  const couples = couplesOf({ kind: draft.kind, contenders: inIt, target: draft.target }).length;
  const planned = couples === 0 ? 0 : (draft.judges * draft.questions) / couples;
  const aim = { ...usualAim(draft.kind), ...(draft.effect !== null && { effect: draft.effect }) };
  const kind = KINDS.find((one) => one.kind === draft.kind);

  /** A new panel begins with what shows most, of everyone, and asks each judge of as many pairs as there are. */
  function begun(): PanelDraft {
    const [best] = subjects;
    const bare = newDraft(best?.artefact_id ?? artefacts[0]?.[0] ?? null);
    const parts: PanelDraft = { ...bare, shown_as: 'parts' };
    const first = best ? shownOf(bare, best.key) : { ...parts, items: allOf(parts, undefined) };
    const owners = new Set(candidatesOf(first, best, specimens).map((one) => one.contender_id))
      .size;
    return { ...first, questions: Math.max(1, Math.min(12, (owners * (owners - 1)) / 2)) };
  }
  function allOf(of: PanelDraft, key: string | undefined): PanelDraft['items'] {
    const some = candidatesOf(
      of,
      subjects.find((one) => one.key === key),
      specimens,
    );
    return some.map(({ specimen_id, path }) => ({ specimen_id, path }));
  }
  function shownOf(of: PanelDraft, key: string): PanelDraft {
    const found = subjects.find((one) => one.key === key);
    if (!found) return of;
    const { artefact_id, view, light } = found;
    const box =
      zonePlace(zones[artefact_id] ?? [], view) ?? found.photos[0]?.photo.laid.box ?? null;
    const next = {
      ...of,
      shown_as: 'photos',
      artefact_id,
      view: view as PanelDraft['view'],
      light: (light === 'unknown' ? null : light) as PanelDraft['light'],
      x_mm: box?.x ?? null,
      y_mm: box?.y ?? null,
      w_mm: box?.w ?? null,
      h_mm: box?.h ?? null,
    } satisfies PanelDraft;
    return { ...next, items: allOf(next, key) };
  }
  const showParts = (artefact_id: string | null) => {
    const next: PanelDraft = { ...draft, shown_as: 'parts', artefact_id };
    setDraft({ ...next, items: allOf(next, undefined) });
  };
  const toggle = (some: readonly Candidate[], isIn: boolean) => {
    const ids = new Set(some.map((one) => one.specimen_id));
    const rest = draft.items.filter((one) => !ids.has(one.specimen_id));
    set({
      items: isIn
        ? [...rest, ...some.map(({ specimen_id, path }) => ({ specimen_id, path }))]
        : rest,
    });
  };

  const base = `/studies/${studyId}/panels`;
  /** Keeps the plan, once as a new panel and then as that one. */
  const save = async (): Promise<string> => {
    if (kept !== null) {
      await callApi('PUT', `${base}/${kept}`, draft);
      return kept;
    }
    const { panel_id } = await callApi<{ panel_id: string }>('POST', base, draft);
    setKept(panel_id);
    history.replaceState(history.state, '', pageOf(panel_id));
    return panel_id;
  };
  const pageOf = (panel: string) => `/studies/${studyId}/inspect/panels/${panel}`;
  const keep = () => attempt(async () => location.assign(pageOf(await save())));
  const open = () =>
    attempt(async () => {
      const panel = await save();
      await callApi('POST', `${base}/${panel}`, { do: 'open' });
      location.assign(pageOf(panel));
    });
  const drop = () =>
    attempt(async () => {
      await callApi('DELETE', `${base}/${kept}`);
      location.assign(`/studies/${studyId}/inspect/panels`);
    });

  return (
    <form
      className="grid min-w-0 grid-cols-1 gap-3 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]"
      onSubmit={(event) => {
        event.preventDefault();
        void open();
      }}
    >
      <div className="grid min-w-0 content-start gap-3">
        <fieldset className="sheet p-3">
          <legend className="sr-only">What is asked</legend>
          <div className="grid gap-2 sm:grid-cols-3">
            {KINDS.map((one) => (
              <label
                key={one.kind}
                className="flex cursor-pointer items-start gap-2 border border-line p-2 has-checked:border-plum has-checked:outline has-checked:outline-plum"
              >
                <input
                  type="radio"
                  name="kind"
                  className="mt-1 accent-plum"
                  checked={draft.kind === one.kind}
                  onChange={() => set({ kind: one.kind, effect: null, target: null })}
                />
                <span>
                  <b className="block">{one.title}</b>
                  <span className="text-xs text-ink-2">{one.says}</span>
                </span>
              </label>
            ))}
          </div>
          <label className="mt-3 grid gap-1">
            <span>the question, in the judges’ words</span>
            <input
              className="field text-base"
              required
              maxLength={200}
              placeholder={kind?.example ?? ''}
              value={draft.aspect}
              onChange={(event) => set({ aspect: event.target.value })}
            />
          </label>
          {draft.kind === 'guess' && (
            <label className="mt-2 grid gap-1">
              <span>the one asked after</span>
              <select
                className="field"
                required
                value={draft.target ?? ''}
                onChange={(event) => set({ target: event.target.value || null })}
              >
                <option value="">choose</option>
                {marks
                  .filter((mark) => inIt.some((one) => one.contender_id === mark.contender_id))
                  .map((mark) => (
                    <option key={mark.contender_id} value={mark.contender_id}>
                      {mark.letter} {mark.machineName}, {mark.variant}
                    </option>
                  ))}
              </select>
            </label>
          )}
        </fieldset>
        <fieldset className="min-w-0 sheet p-3">
          <legend className="sr-only">What judges see</legend>
          <p className="flex flex-wrap items-center gap-2">
            judges see
            <select
              className="field w-auto"
              aria-label="What judges see"
              value={isOfPhotos ? (subject?.key ?? '') : `parts:${draft.artefact_id}`}
              onChange={(event) => {
                const { value } = event.target;
                if (value.startsWith('parts:')) showParts(value.slice(6));
                else setDraft(shownOf(draft, value));
              }}
            >
              <optgroup label="photos, on their own screens">
                {subjects.map((one) => (
                  <option key={one.key} value={one.key}>
                    photos: {one.artefact}, {inWords(one.view)}, {inWords(one.light)} light (
                    {one.photos.length})
                  </option>
                ))}
              </optgroup>
              <optgroup label="the parts themselves, laid out before them">
                {artefacts.map(([id, name]) => (
                  <option key={id} value={`parts:${id}`}>
                    parts: {name}
                  </option>
                ))}
              </optgroup>
            </select>
            {isOfPhotos && (
              <label className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="accent-plum"
                  checked={draft.levels === 'matched'}
                  onChange={(event) =>
                    set({ levels: event.target.checked ? 'matched' : 'as-taken' })
                  }
                />
                grey, and equally bright
              </label>
            )}
          </p>
          {isOfPhotos && subject && (
            <>
              <p className="my-2 flex flex-wrap items-end gap-2">
                {(['x_mm', 'y_mm', 'w_mm', 'h_mm'] as const).map((side) => (
                  <label key={side} className="grid text-2xs text-ink-2">
                    {
                      {
                        x_mm: 'from the left, mm',
                        y_mm: 'from below, mm',
                        w_mm: 'wide, mm',
                        h_mm: 'high, mm',
                      }[side]
                    }
                    <input
                      className="field w-24"
                      type="number"
                      step="0.1"
                      value={draft[side] ?? ''}
                      onChange={(event) =>
                        set({
                          [side]: event.target.value === '' ? null : Number(event.target.value),
                        })
                      }
                    />
                  </label>
                ))}
                {(zones[subject.artefact_id] ?? [])
                  .filter((zone) => zone.place?.side === subject.view)
                  .map((zone) => (
                    <button
                      key={zone.zone_id}
                      type="button"
                      className="action"
                      onClick={() => {
                        const box = zone.place && zoneBox(zone.place);
                        if (box) set({ x_mm: box.x, y_mm: box.y, w_mm: box.w, h_mm: box.h });
                      }}
                    >
                      {zone.name}
                    </button>
                  ))}
              </p>
              <PlacePicker
                studyId={studyId}
                photos={subject.photos
                  .filter(({ photo }) => draft.items.some((one) => one.path === photo.path))
                  .map(({ photo, code }) => ({ photo, label: code }))}
                place={place}
                onPlace={({ x, y, w, h }) => set({ x_mm: x, y_mm: y, w_mm: w, h_mm: h })}
              />
            </>
          )}
        </fieldset>
      </div>
      <div className="grid min-w-0 content-start gap-3">
        <fieldset className="sheet p-3">
          <legend className="float-left mb-1 font-semibold">Who is compared</legend>
          <ul className="clear-both grid gap-1">
            {marks.map((mark) => {
              const own = candidates.filter((one) => one.contender_id === mark.contender_id);
              const isIn = own.some((one) => chosen.has(one.specimen_id));
              return (
                <li
                  key={mark.contender_id}
                  className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-line py-1 first:border-0"
                >
                  <label className="flex min-w-52 flex-1 items-center gap-2">
                    <input
                      type="checkbox"
                      className="accent-plum"
                      disabled={own.length === 0}
                      checked={isIn}
                      onChange={(event) => toggle(own, event.target.checked)}
                    />
                    <ContenderName mark={mark} isReference={false} />
                  </label>
                  <span className="flex flex-wrap gap-1">
                    {own.length === 0 && <span className="text-ink-2">nothing to show</span>}
                    {own.map((one) => (
                      <button
                        key={one.specimen_id}
                        type="button"
                        className="action font-mono text-2xs aria-pressed:border-plum"
                        aria-pressed={chosen.has(one.specimen_id)}
                        onClick={() => toggle([one], !chosen.has(one.specimen_id))}
                      >
                        {chosen.has(one.specimen_id) ? '✓ ' : ''}
                        {one.code}
                      </button>
                    ))}
                  </span>
                </li>
              );
            })}
          </ul>
          {inIt.some((one) => one.specimens.length === 1) && (
            <p className="mt-1 text-xs text-ink-2">
              Where one specimen stands for its contender, an odd part speaks for the machine:
              several are better.
            </p>
          )}
        </fieldset>
        <fieldset className="sheet p-3">
          <legend className="float-left mb-1 font-semibold">How many</legend>
          <div className="clear-both flex flex-wrap items-end gap-x-4 gap-y-2">
            <Count
              label="judges"
              value={draft.judges}
              least={1}
              most={500}
              onChange={(judges) => set({ judges })}
            />
            <Count
              label="questions each"
              value={draft.questions}
              least={1}
              most={60}
              onChange={(questions) => set({ questions })}
            />
            <Count
              label="asked once more"
              value={draft.asked_again ?? 0}
              least={0}
              most={draft.questions}
              onChange={(asked_again) => set({ asked_again })}
            />
            <label className="grid text-2xs text-ink-2">
              {draft.kind === 'paired'
                ? 'find that so many of 100 prefer the one'
                : 'find that so many of 100 can tell'}
              <input
                className="field w-20"
                type="number"
                min={draft.kind === 'paired' ? 51 : 1}
                max={100}
                value={Math.round(100 * aim.effect)}
                onChange={(event) =>
                  set({ effect: Math.min(1, Math.max(0.01, Number(event.target.value) / 100)) })
                }
              />
            </label>
          </div>
          <div className="mt-3">
            <PowerCurve kind={draft.kind} aim={aim} planned={planned} />
          </div>
          <p className="mt-2 text-xs text-ink-2">
            {couples} {couples === 1 ? 'pair' : 'pairs'} of contenders. Ballots of one judge hang
            together: many judges with few questions say more than few with many.
          </p>
        </fieldset>
        <fieldset className="grid gap-2 sheet p-3">
          <legend className="float-left mb-1 font-semibold">Who judges, until when</legend>
          <p className="clear-both flex flex-wrap gap-x-4 gap-y-1">
            {(
              [
                ['numbers', 'nobody is named'],
                ['initials', 'judges give their initials'],
              ] as const
            ).map(([names, says]) => (
              <label key={names} className="flex items-center gap-1.5">
                <input
                  type="radio"
                  name="names"
                  className="accent-plum"
                  checked={draft.names === names}
                  onChange={() => set({ names })}
                />
                {says}
              </label>
            ))}
          </p>
          <label className="flex flex-wrap items-center gap-2">
            it ends when all have judged, or at
            <input
              className="field w-auto"
              type="datetime-local"
              value={draft.closes_at === null ? '' : localInput(draft.closes_at)}
              onChange={(event) =>
                set({
                  closes_at:
                    event.target.value === '' ? null : new Date(event.target.value).toISOString(),
                })
              }
            />
          </label>
          <p className="text-xs text-ink-2">
            Its rule ends it, not its result: whoever looks before, or ends it early, says why, and
            the report prints it.
          </p>
        </fieldset>
        {message && (
          <p role="alert" className="sheet border-plum p-3">
            {message}
          </p>
        )}
        <p className="flex flex-wrap gap-2">
          <button type="submit" className="action action-main" disabled={isBusy}>
            {isBusy ? 'One moment …' : 'Open it for judges'}
          </button>
          <button type="button" className="action" disabled={isBusy} onClick={() => void keep()}>
            Keep the plan
          </button>
          {kept !== null && (
            <button type="button" className="action" disabled={isBusy} onClick={() => void drop()}>
              Give it up
            </button>
          )}
        </p>
      </div>
    </form>
  );
}

/** A moment as a field of this computer's own time shows it. */
function localInput(iso: string): string {
  const at = new Date(iso);
  at.setMinutes(at.getMinutes() - at.getTimezoneOffset());
  return at.toISOString().slice(0, 16);
}

/** The largest zone that lies on a side: what is graded there is what people look at. */
function zonePlace(zones: readonly BenchZone[], view: string) {
  const boxes = zones.flatMap(({ place }) => (place?.side === view ? [zoneBox(place)] : []));
  return boxes.sort((a, b) => b.w * b.h - a.w * a.h)[0] ?? null;
}

interface CountProps {
  label: string;
  value: number;
  least: number;
  most: number;
  onChange: (value: number) => void;
}

const Count = ({ label, value, least, most, onChange }: CountProps) => (
  <label className="grid text-2xs text-ink-2">
    {label}
    <input
      className="field w-20"
      type="number"
      min={least}
      max={most}
      required
      value={value}
      onChange={(event) => onChange(Math.round(Number(event.target.value)))}
    />
  </label>
);

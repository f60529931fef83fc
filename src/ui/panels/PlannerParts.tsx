import { counted } from '../lib/format';
import { lightInWords } from '../../core/answers/figure-names';
import { inWords } from '../../core/model/study';
import { zoneBox } from '../../core/measures/surface';
import { ContenderName } from '../marks/ContenderName';
import { KINDS } from './panel-draft';
import { PlacePicker } from './PlacePicker';
import { PowerCurve } from './PowerCurve';
import type { PanelPlan, PanelPlannerProps } from './use-panel-plan';
import type { Subject } from '../photos/side-by-side/subjects';

interface PlaceFieldsProps {
  plan: PanelPlan;
  zones: PanelPlannerProps['zones'];
  subject: Subject;
}

/** Which place of the photos is shown: typed, or a zone of the artefact. */
function PlaceFields({ plan, zones, subject }: PlaceFieldsProps) {
  return (
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
            value={plan.draft[side] ?? ''}
            onChange={(event) =>
              plan.set({
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
              if (box) plan.set({ x_mm: box.x, y_mm: box.y, w_mm: box.w, h_mm: box.h });
            }}
          >
            {zone.name}
          </button>
        ))}
    </p>
  );
}

interface SeenChoiceProps {
  plan: PanelPlan;
  subject: Subject | undefined;
}

/** Photos or the parts themselves. */
function SeenChoice({ plan, subject }: SeenChoiceProps) {
  return (
    <p className="flex flex-wrap items-center gap-2">
      judges see
      <select
        className="field w-auto"
        aria-label="What judges see"
        value={plan.isOfPhotos ? (subject?.key ?? '') : `parts:${plan.draft.artefact_id}`}
        onChange={(event) => {
          const { value } = event.target;
          if (value.startsWith('parts:')) plan.showParts(value.slice(6));
          else plan.setDraft(plan.shownOf(plan.draft, value));
        }}
      >
        <optgroup label="photos, on their own screens">
          {plan.subjects.map((one) => (
            <option key={one.key} value={one.key}>
              photos: {one.artefact}, {inWords(one.view)}, {lightInWords(one.light)} (
              {one.photos.length})
            </option>
          ))}
        </optgroup>
        <optgroup label="the parts themselves, laid out before them">
          {plan.artefacts.map(([id, name]) => (
            <option key={id} value={`parts:${id}`}>
              parts: {name}
            </option>
          ))}
        </optgroup>
      </select>
      {plan.isOfPhotos && (
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            className="accent-plum"
            checked={plan.draft.levels === 'matched'}
            onChange={(event) =>
              plan.set({ levels: event.target.checked ? 'matched' : 'as-taken' })
            }
          />
          grey, and equally bright
        </label>
      )}
    </p>
  );
}

interface WhatIsSeenProps {
  plan: PanelPlan;
  subject: Subject | undefined;
  zones: PanelPlannerProps['zones'];
  studyId: string;
}

/** What judges see. */
export function WhatIsSeen({ plan, subject, zones, studyId }: WhatIsSeenProps) {
  return (
    <fieldset className="min-w-0 sheet p-3">
      <legend className="sr-only">What judges see</legend>
      <SeenChoice plan={plan} subject={subject} />
      {plan.subjects.length === 0 && (
        <p className="text-xs text-ink-2">
          {plan.withoutMarks > 0
            ? 'A panel cuts all photos to the same place, so each needs marks. ' +
              `${counted(plan.withoutMarks, 'photo')} without marks.`
            : 'This study has no photos of specimens yet. Judges can be shown the parts themselves.'}{' '}
          <a className="underline" href={`/studies/${studyId}/inspect/photos`}>
            {plan.withoutMarks > 0 ? 'Set marks on photos' : 'Add photos'}
          </a>
        </p>
      )}
      {plan.isOfPhotos && subject && (
        <>
          <PlaceFields plan={plan} zones={zones} subject={subject} />
          <PlacePicker
            studyId={studyId}
            photos={subject.photos
              .filter(({ photo }) => plan.draft.items.some((one) => one.path === photo.path))
              .map(({ photo, code }) => ({ photo, label: code }))}
            place={plan.place}
            onPlace={({ x, y, w, h }) => plan.set({ x_mm: x, y_mm: y, w_mm: w, h_mm: h })}
          />
        </>
      )}
    </fieldset>
  );
}

interface WhatIsAskedProps {
  plan: PanelPlan;
  marks: PanelPlannerProps['marks'];
}

/** What is asked, in the judges’ words. */
export function WhatIsAsked({ plan, marks }: WhatIsAskedProps) {
  return (
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
              checked={plan.draft.kind === one.kind}
              onChange={() => plan.set({ kind: one.kind, effect: null, target: null })}
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
          placeholder={plan.kind?.example ?? ''}
          value={plan.draft.aspect}
          onChange={(event) => plan.set({ aspect: event.target.value })}
        />
      </label>
      {plan.draft.kind === 'guess' && (
        <label className="mt-2 grid gap-1">
          <span>the one asked after</span>
          <select
            className="field"
            required
            value={plan.draft.target ?? ''}
            onChange={(event) => plan.set({ target: event.target.value || null })}
          >
            <option value="">choose</option>
            {marks
              .filter((mark) => plan.inIt.some((one) => one.contender_id === mark.contender_id))
              .map((mark) => (
                <option key={mark.contender_id} value={mark.contender_id}>
                  {mark.letter} {mark.machineName}, {mark.variant}
                </option>
              ))}
          </select>
        </label>
      )}
    </fieldset>
  );
}

interface WhoIsComparedProps {
  marks: PanelPlannerProps['marks'];
  plan: PanelPlan;
}

/** Who is compared, and by which specimens. */
export function WhoIsCompared({ marks, plan }: WhoIsComparedProps) {
  return (
    <fieldset className="sheet p-3">
      <legend className="float-left mb-1 font-semibold">Who is compared</legend>
      <ul className="clear-both grid gap-1">
        {marks.map((mark) => {
          const own = plan.candidates.filter((one) => one.contender_id === mark.contender_id);
          const isIn = own.some((one) => plan.chosen.has(one.specimen_id));
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
                  onChange={(event) => plan.toggle(own, event.target.checked)}
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
                    aria-pressed={plan.chosen.has(one.specimen_id)}
                    onClick={() => plan.toggle([one], !plan.chosen.has(one.specimen_id))}
                  >
                    {plan.chosen.has(one.specimen_id) ? '✓ ' : ''}
                    {one.code}
                  </button>
                ))}
              </span>
            </li>
          );
        })}
      </ul>
      {plan.inIt.some((one) => one.specimens.length === 1) && (
        <p className="mt-1 text-xs text-ink-2">
          With one specimen per contender, one odd part decides for the machine: show several.
        </p>
      )}
    </fieldset>
  );
}

interface HowManyProps {
  plan: PanelPlan;
}

/** How many judges and questions, and what that can show. */
export function HowMany({ plan }: HowManyProps) {
  return (
    <fieldset className="sheet p-3">
      <legend className="float-left mb-1 font-semibold">How many</legend>
      <div className="clear-both flex flex-wrap items-end gap-x-4 gap-y-2">
        <Count
          label="judges"
          value={plan.draft.judges}
          least={1}
          most={500}
          onChange={(judges) => plan.set({ judges })}
        />
        <Count
          label="questions each"
          value={plan.draft.questions}
          least={1}
          most={60}
          onChange={(questions) => plan.set({ questions })}
        />
        <Count
          label="asked once more"
          value={plan.draft.asked_again ?? 0}
          least={0}
          most={plan.draft.questions}
          onChange={(asked_again) => plan.set({ asked_again })}
        />
        <label className="grid text-2xs text-ink-2">
          {plan.draft.kind === 'paired'
            ? 'find that so many of 100 prefer the one'
            : 'find that so many of 100 people can see a difference'}
          <input
            className="field w-20"
            type="number"
            min={plan.draft.kind === 'paired' ? 51 : 1}
            max={100}
            value={Math.round(100 * plan.aim.effect)}
            onChange={(event) =>
              plan.set({
                effect: Math.min(1, Math.max(0.01, Number(event.target.value) / 100)),
              })
            }
          />
        </label>
      </div>
      <div className="mt-3">
        <PowerCurve kind={plan.draft.kind} aim={plan.aim} planned={plan.planned} />
      </div>
      <p className="mt-2 text-xs text-ink-2">
        {plan.couples} {plan.couples === 1 ? 'pair' : 'pairs'} of contenders. Ballots of one judge
        hang together: many judges with few questions say more than few with many.
      </p>
    </fieldset>
  );
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

interface CountProps {
  label: string;
  value: number;
  least: number;
  most: number;
  onChange: (value: number) => void;
}

interface WhoJudgesProps {
  plan: PanelPlan;
}

/** Who judges, until when. */
export function WhoJudges({ plan }: WhoJudgesProps) {
  return (
    <fieldset className="grid gap-2 sheet p-3">
      <legend className="float-left mb-1 font-semibold">Who judges, until when</legend>
      <p className="clear-both flex flex-wrap gap-x-4 gap-y-1">
        {(
          [
            ['numbers', 'no names'],
            ['initials', 'judges give their initials'],
          ] as const
        ).map(([names, says]) => (
          <label key={names} className="flex items-center gap-1.5">
            <input
              type="radio"
              name="names"
              className="accent-plum"
              checked={plan.draft.names === names}
              onChange={() => plan.set({ names })}
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
          value={plan.draft.closes_at === null ? '' : localInput(plan.draft.closes_at)}
          onChange={(event) =>
            plan.set({
              closes_at:
                event.target.value === '' ? null : new Date(event.target.value).toISOString(),
            })
          }
        />
      </label>
      <p className="text-xs text-ink-2">
        Its rule ends the panel, not its result. If you look earlier, or end it early, give a
        reason; the report prints it.
      </p>
    </fieldset>
  );
}

/** A moment as a field of this computer's own time shows it. */
function localInput(iso: string): string {
  const at = new Date(iso);
  at.setMinutes(at.getMinutes() - at.getTimezoneOffset());
  return at.toISOString().slice(0, 16);
}

import { type Glance, type GlanceTableProps, useGlance } from './use-glance';
import { VERDICT_SIGNS } from '../../../core/text/phrasing';
import { Leaving } from '../../kit/Leaving';
import { Badge } from '../../marks/Badge';
import { FigureRow } from './FigureRow';

/** All figures of all contenders: a row a figure, one scale a row, walked through by keys. */
export function GlanceTable(props: GlanceTableProps) {
  const glance = useGlance(props);
  const { table } = glance;
  return (
    <section className="min-w-0 sheet" aria-label="All figures of all contenders">
      <GlanceBar glance={glance} />
      {glance.isChoosing && <FigureChoice glance={glance} />}
      <Leaving isPicture name="at a glance">
        <table ref={table} className="w-full border-collapse sm:min-w-[860px]">
          <GlanceHeads glance={glance} />
          <tbody>
            {glance.groups.map(({ group, rows: own }) =>
              (glance.folded.has(group) ? own.slice(0, 1) : own).map((row, at) => (
                <FigureRow
                  key={row.key}
                  row={row}
                  group={group}
                  at={at}
                  glance={glance}
                  own={own}
                />
              )),
            )}
          </tbody>
        </table>
      </Leaving>
      <p className="flex flex-wrap gap-x-4 px-3 pb-2 text-2xs text-ink-2">
        {(['better', 'worse', 'indistinguishable', 'unsettled', 'one_print'] as const).map(
          (one) => (
            <span key={one}>
              {VERDICT_SIGNS[one][0]}{' '}
              {one === 'indistinguishable'
                ? 'no difference that matters'
                : VERDICT_SIGNS[one][1]}{' '}
            </span>
          ),
        )}
        <span>pale band: what does not matter, about the reference</span>
        <span>dashed: the interval goes on beyond the scale</span>
        <span>hatched: not known</span>
      </p>
    </section>
  );
}

interface GlanceHeadsProps {
  glance: Glance;
}

/** Who is in which column. */
function GlanceHeads({ glance }: GlanceHeadsProps) {
  return (
    <thead>
      <tr className="border-b border-line">
        <th className="w-[92px] th max-sm:hidden">group</th>
        <th className="w-[168px] th">figure</th>
        {glance.columns.map((mark) => (
          <th
            key={mark.contender_id}
            className={`th ${glance.isWide(mark.contender_id) ? 'max-sm:hidden' : ''}`}
          >
            <a
              href={glance.headToHead(mark.contender_id)}
              className="flex items-center gap-1.5 no-underline"
            >
              <Badge mark={mark} isReference={mark.contender_id === glance.reference} />
              <span className="leading-tight">
                {mark.machineName}
                <small className="block font-normal text-ink-2">{mark.variant}</small>
              </span>
            </a>
          </th>
        ))}
      </tr>
    </thead>
  );
}

interface FigureChoiceProps {
  glance: Glance;
}

/** Which figures are shown. */
function FigureChoice({ glance }: FigureChoiceProps) {
  return (
    <fieldset className="flex flex-wrap gap-x-4 gap-y-1 border-b border-line px-3 py-2 text-xs">
      <legend className="sr-only">Which figures</legend>
      {glance.rows.map((row) => (
        <label key={row.key} className="flex min-h-[24px] items-center gap-1">
          <input
            type="checkbox"
            className="m-[5px]"
            checked={!glance.left.has(row.key)}
            onChange={() => glance.leaveOut(row.key)}
          />
          {row.words.label}
        </label>
      ))}
    </fieldset>
  );
}

interface GlanceBarProps {
  glance: Glance;
}

/** What the keys do, who stands beside the reference on a phone, and what was chosen. */
function GlanceBar({ glance }: GlanceBarProps) {
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-line px-3 py-2 text-xs text-ink-2">
      <span className="hidden keys-only sm:inline">
        <kbd className="key">J</kbd> <kbd className="key">K</kbd> rows <kbd className="key">←</kbd>{' '}
        <kbd className="key">→</kbd> contenders <kbd className="key">↵</kbd> evidence{' '}
        <kbd className="key">S</kbd> sort by the row <kbd className="key">H</kbd> head to head{' '}
        <kbd className="key">U</kbd> use in report <kbd className="key">Alt ↓</kbd> move the row
      </span>
      <label className="sm:hidden">
        beside the reference{' '}
        <select
          className="field w-auto"
          value={glance.chosen?.contender_id ?? ''}
          onChange={(event) => glance.setOther(event.target.value)}
        >
          {glance.columns
            .filter((mark) => mark.contender_id !== glance.reference)
            .map((mark) => (
              <option key={mark.contender_id} value={mark.contender_id}>
                {mark.label}
              </option>
            ))}
        </select>
      </label>
      <button
        type="button"
        className="ml-auto action"
        aria-expanded={glance.isChoosing}
        onClick={() => glance.setChoosing(!glance.isChoosing)}
      >
        Choose figures
      </button>
      {glance.pickedNow !== '' && (
        <span role="status">
          {glance.pickedNow} is picked for the{' '}
          <a href={`/studies/${glance.studyId}/report`}>report</a>
        </span>
      )}
      {glance.sorting && (
        <button type="button" className="action" onClick={() => glance.sortBy(glance.sortKey)}>
          In the order of the line-up
        </button>
      )}
    </div>
  );
}

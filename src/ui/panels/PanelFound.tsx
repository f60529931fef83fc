import { addressOf } from '../../core/answers/figure-address/address';
import { DEFAULT_ALPHA } from '../../core/answers/results';
import type { ContenderMark } from '../../core/model/study';
import { chanceOf, type PairedPanel, type TellingPanel } from '../../core/measures/panels';
import { preferencesOf, describeHabits, describePanel } from '../../core/text/phrasing';
import type { PanelResult } from '../../contract/panels';
import { Leaving } from '../kit/Leaving';
import { fixed, percent, ends } from '../lib/format';
import { ContenderName } from '../marks/ContenderName';
import { DotStrip, placeOn, type StripScale } from '../marks/DotStrip';
import { Unknown } from '../marks/Unknown';

interface PanelFoundProps extends PanelResult {
  /** The panel, for the evidence of its figures; null where names are not said yet. */
  panelId: string | null;
  marks: readonly ContenderMark[];
}

const SHARES: StripScale = { low: 0, high: 1, ticks: [0, 0.25, 0.5, 0.75, 1] };

/** What a panel found: in sentences, on one scale, and how its judges answered. */
export function PanelFound({
  panel,
  habits,
  reference,
  median_s,
  isWithheld,
  marks,
  panelId,
}: PanelFoundProps) {
  const named = (id: string) => {
    const mark = marks.find((one) => one.contender_id === id);
    return mark ? `${mark.letter} ${mark.variant}` : id;
  };
  return (
    <div className="grid min-w-0 gap-2">
      {describePanel(panel, reference, named, DEFAULT_ALPHA, isWithheld).map((sentence, at) => (
        <p key={sentence} className={at === 0 ? 'text-lg' : ''}>
          {sentence}
        </p>
      ))}
      {panel.ballots > 0 &&
        !isWithheld &&
        (panel.kind === 'paired' ? (
          <Scale
            panel={panel}
            reference={reference}
            marks={marks}
            panelId={panelId}
            named={named}
          />
        ) : (
          <Told panel={panel} />
        ))}
      <p className="text-xs text-ink-2">
        {panel.ballots} ballots of {panel.judges} judges
        {panel.kind === 'paired' ? `, ${panel.ties} without a difference` : ''}
        {median_s === null
          ? ''
          : `, half of them in under ${fixed(Math.max(1, Math.ceil(median_s)), 0)} s`}
        . {describeHabits(habits, DEFAULT_ALPHA).join(' ')}
      </p>
      {habits.judges.length > 0 && (
        <details>
          <summary className="cursor-pointer">judge by judge</summary>
          <Leaving>
            <table data-name="judges of a panel" className="mt-1 w-full max-w-[560px]">
              <thead>
                <tr className="text-left text-xs text-ink-2">
                  {[
                    'judge',
                    'ballots',
                    panel.kind === 'paired' ? 'no difference' : 'right',
                    'left',
                    ...(habits.agreement ? ['asked again', 'same again'] : []),
                  ].map((head) => (
                    <th key={head} className="px-2 font-normal">
                      {head}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {habits.judges.map((one) => (
                  <tr key={one.judge} className="border-t border-line">
                    <th scope="row" className="px-2 text-left font-normal">
                      {one.judge}
                    </th>
                    <td className="px-2">{one.ballots}</td>
                    <td className="px-2">{one.right ?? one.ties}</td>
                    <td className="px-2">{one.left}</td>
                    {habits.agreement && (
                      <>
                        <td className="px-2">{one.asked_again}</td>
                        <td className="px-2">{one.same_again}</td>
                      </>
                    )}
                  </tr>
                ))}
              </tbody>
            </table>
          </Leaving>
        </details>
      )}
    </div>
  );
}

interface ScaleProps {
  panel: PairedPanel;
  reference: string | null;
  marks: readonly ContenderMark[];
  panelId: string | null;
  named: (contender: string) => string;
}

const VERDICTS = {
  preferred: 'preferred',
  'not preferred': 'not preferred',
  'no preference': 'no preference shows',
  reference: 'the reference',
  always: 'every time: no bound',
  never: 'never: no bound',
  'few judges': 'no verdict: fewer than six judges',
  unknown: 'cannot be ranked',
} as const;

/** Preference over the reference on one scale: of 100 people who see both, so many take this one. */
function Scale({ panel, reference, marks, panelId, named }: ScaleProps) {
  return (
    <Leaving>
      <table data-name="preference" className="w-full">
        <thead>
          <tr className="text-left text-xs text-ink-2">
            <th className="px-2 font-normal">contender</th>
            <th className="w-1/2 px-2 font-normal">
              of 100 people who see it beside{' '}
              {reference === null ? 'the reference' : named(reference)}, so many take it
            </th>
            <th className="px-2 text-right font-normal">of 100</th>
            <th className="px-2 font-normal">verdict</th>
            <th className="px-2 text-right font-normal">taken</th>
            <th className="px-2 text-right font-normal">left</th>
            <th className="px-2 text-right font-normal">even</th>
          </tr>
        </thead>
        <tbody>
          {preferencesOf(panel, reference).map(({ contender, share, verdict }) => {
            const mark = marks.find((one) => one.contender_id === contender);
            const own = panel.abilities[contender];
            const figure = (text: string | number) =>
              panelId === null ? (
                text
              ) : (
                <button
                  type="button"
                  className="figure"
                  data-figure={addressOf('panels', panelId, `abilities.${contender}.log_ability`)}
                >
                  {text}
                </button>
              );
            return (
              <tr key={contender} className="border-t border-line">
                <th scope="row" className="px-2 text-left font-normal">
                  {mark ? (
                    <ContenderName mark={mark} isReference={contender === reference} />
                  ) : (
                    <b className="font-mono text-lg">{contender}</b>
                  )}
                </th>
                <td className="px-2">
                  <DotStrip
                    hue={mark?.hue ?? 7}
                    isTuned={mark?.isTuned ?? true}
                    scale={SHARES}
                    dots={[]}
                    interval={
                      share ?? {
                        estimate: verdict === 'reference' ? 0.5 : null,
                        low: null,
                        high: null,
                      }
                    }
                    label={`${named(contender)}: ${VERDICTS[verdict]}`}
                  />
                </td>
                <td className="px-2 text-right whitespace-nowrap">
                  {share?.estimate == null ? (
                    verdict === 'reference' ? (
                      '50'
                    ) : (
                      <Unknown why={own?.notes.join('; ') ?? ''} />
                    )
                  ) : (
                    <>
                      {figure(fixed(100 * share.estimate, 0))}{' '}
                      <span className="text-ink-2">
                        {ends(share, (value) => fixed(100 * value, 0))}
                      </span>
                    </>
                  )}
                </td>
                <td className="px-2 whitespace-nowrap">{VERDICTS[verdict]}</td>
                <td className="px-2 text-right">{figure(own?.wins ?? 0)}</td>
                <td className="px-2 text-right">{figure(own?.losses ?? 0)}</td>
                <td className="px-2 text-right">{figure(own?.ties ?? 0)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Leaving>
  );
}

/** A share that may not be known. */
const known = (share: number | null): string => (share === null ? 'not known' : percent(share));

/** The share of right answers against guessing, on one scale. */
function Told({ panel }: { panel: TellingPanel }) {
  const { kind, correct_share: share, correct, ballots, discriminators } = panel;
  const chance = chanceOf(kind);
  const label = `${correct} of ${ballots} right: ${known(share.estimate)}, by guessing ${percent(chance)}`;
  return (
    <figure className="max-w-[640px]">
      <div className="relative">
        <DotStrip
          hue={7}
          isTuned
          scale={SHARES}
          dots={[]}
          interval={share}
          label={label}
          height={44}
        />
        <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true">
          <line
            x1={`${placeOn(SHARES, chance)}%`}
            x2={`${placeOn(SHARES, chance)}%`}
            y1="0"
            y2="100%"
            stroke="var(--plum)"
            strokeDasharray="3 3"
          />
        </svg>
      </div>
      <div className="relative h-4 text-2xs text-ink-2">
        {SHARES.ticks.map((tick) => (
          <svg key={tick} className="absolute inset-0 h-full w-full" aria-hidden="true">
            <text
              x={`${placeOn(SHARES, tick)}%`}
              y={11}
              textAnchor="middle"
              fontSize={10}
              fill="var(--ink-2)"
            >
              {percent(tick)}
            </text>
          </svg>
        ))}
      </div>
      <figcaption className="text-xs text-ink-2">
        right answers, {known(share.estimate)} ({ends(share, percent)}); dashed: guessing alone,{' '}
        {percent(chance)}. People who really see it: {known(discriminators.estimate)} of people (
        {ends(discriminators, percent)}).
      </figcaption>
    </figure>
  );
}

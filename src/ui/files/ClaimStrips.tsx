import { describeClaim, type Reach } from '../../core/toolpath';
import type { ContenderMark } from '../../core/model/study';
import { fixed, percent } from '../lib/format';
import { placeOn, scaleFor, type StripScale } from '../marks/DotStrip';
import { StripTable } from '../marks/StripTable';
import { Unknown } from '../marks/Unknown';

interface ClaimStripsProps {
  marks: readonly ContenderMark[];
  reach: Readonly<Record<string, Reach>>;
  reference: string | null;
}

/** What the box claims, what the files ask for, what is reached: every contender on one scale. */
export function ClaimStrips({ marks, reach, reference }: ClaimStripsProps) {
  const shown = marks.flatMap((mark) => {
    const own = reach[mark.contender_id];
    return own && own.files > 0 ? [{ mark, own }] : [];
  });
  const scale = scaleFor(
    shown.flatMap(({ own }) => [
      own.claim?.claimed ?? 0,
      own.commanded_max ?? 0,
      Math.min(own.flow_limited_mm_s ?? 0, 2 * (own.claim?.claimed ?? 0)),
    ]),
    0,
  );
  return (
    <section className="sheet" aria-labelledby="claims">
      <header className="border-b border-line px-3 py-2">
        <h2 id="claims" className="font-semibold">
          Claim, command, reach
        </h2>
        <p className="text-xs text-ink-2">
          Bars: how the extruding time is spread over the speeds that are reached.{' '}
          <Sign kind="claim" /> claimed <Sign kind="command" /> most that is asked for{' '}
          <Sign kind="flow" /> where the hotend’s flow ends
        </p>
      </header>
      {shown.length === 0 ? (
        <p className="p-3 text-ink-2">No sliced file of these contenders has been read yet.</p>
      ) : (
        <StripTable
          heads={HEADS}
          legend={null}
          reference={reference}
          scale={scale}
          digits={0}
          foot="share of the time within 5 % of the claim"
          rows={shown.map(({ mark, own }) => ({
            mark,
            strip: <ReachStrip mark={mark} own={own} scale={scale} />,
            cells: (
              <td className="w-[300px] px-3 font-mono">
                {own.claim?.share_within_5pct == null ? (
                  <Unknown why="no claim, or no file read against it" />
                ) : (
                  percent(own.claim.share_within_5pct)
                )}
              </td>
            ),
            below: own.claim ? describeClaim(own.claim) : 'The machine claims no speed.',
          }))}
        />
      )}
    </section>
  );
}

const HEADS = ['speeds, mm/s', 'share of the time within 5 % of the claim'].map((text) => ({
  text,
}));

const HEIGHT = 44;

function ReachStrip({ mark, own, scale }: { mark: ContenderMark; own: Reach; scale: StripScale }) {
  const x = (value: number) => `${Math.min(100, Math.max(0, placeOn(scale, value))).toFixed(2)}%`;
  const largest = Math.max(...own.reached_s, 1e-9);
  const width = placeOn(scale, 10) - placeOn(scale, 0);
  const { claim } = own;
  const upright = (value: number, kind: keyof typeof STROKES) => (
    <line x1={x(value)} x2={x(value)} y1={2} y2={42} {...STROKES[kind]} />
  );
  const label = [
    `${mark.label}:`,
    claim ? `claimed ${fixed(claim.claimed, 0)},` : '',
    own.commanded_max === null ? '' : `asked for up to ${fixed(own.commanded_max, 0)},`,
    own.reached_max === null ? '' : `reached up to ${fixed(own.reached_max, 0)},`,
    own.reached ? `half the time at most ${fixed(own.reached.p50, 0)} mm/s` : '',
  ].join(' ');
  return (
    <svg className={`hue-${mark.hue} block w-full`} height={HEIGHT} role="img" aria-label={label}>
      {scale.ticks.map((tick) => (
        <line key={tick} x1={x(tick)} x2={x(tick)} y1={0} y2={HEIGHT} stroke="var(--line-soft)" />
      ))}
      {own.reached_s.map((seconds, bin) => {
        const height = (26 * seconds) / largest;
        return seconds <= 0 ? null : (
          <rect
            key={bin}
            x={x(10 * bin)}
            width={`${(0.9 * width).toFixed(3)}%`}
            y={36 - height}
            height={Math.max(1, height)}
            fill="var(--hue)"
            fillOpacity={mark.isTuned ? 0.75 : 0.4}
          />
        );
      })}
      <line x1={x(0)} x2={x(scale.high)} y1={36} y2={36} stroke="var(--line)" />
      {own.commanded_max !== null && upright(own.commanded_max, 'command')}
      {own.flow_limited_mm_s !== null && upright(own.flow_limited_mm_s, 'flow')}
      {claim && upright(claim.claimed, 'claim')}
    </svg>
  );
}

/** How the upright lines of a strip are drawn, and their signs in the legend. */
const STROKES = {
  claim: { stroke: 'var(--ink)', strokeWidth: 2.5 },
  command: { stroke: 'var(--ink)', strokeWidth: 2, strokeDasharray: '3 2' },
  flow: { stroke: 'var(--small)', strokeWidth: 4, strokeOpacity: 0.6 },
};

function Sign({ kind }: { kind: keyof typeof STROKES }) {
  return (
    <svg className="ml-1 inline-block align-middle" width={8} height={13} aria-hidden="true">
      <line x1={4} x2={4} y1={0} y2={13} {...STROKES[kind]} />
    </svg>
  );
}

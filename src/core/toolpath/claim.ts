import { median } from '../statistics/stats/summary';
import type { ClaimFacts, SpeedFacts } from './facts';
import type { MachineRecord } from './machine';
import { ALLOWANCE, type SettingValue } from '../model/study';
import type { Times } from './motion';

/** Within 5 % of a claim is at least this share of it. */
const WITHIN = 0.95;

/** What a machine claims against what the file asks for and what is reached; null without a claim. */
export function claimFacts(
  machine: MachineRecord,
  settings: Readonly<Record<string, SettingValue>>,
  speed: Pick<SpeedFacts, 'commanded_max' | 'reached_max'>,
  tally: Times,
  layerHeights: readonly number[],
): ClaimFacts | null {
  const claimed = machine.claimed_speed_mm_s;
  if (claimed === undefined) return null;
  const { commanded_max, reached_max } = speed;
  const width = positive(settings.line_width_mm);
  const height =
    positive(settings.layer_height_mm) ?? (layerHeights.length > 0 ? median(layerHeights) : null);
  const flow_needed_mm3_s = width !== null && height !== null ? claimed * width * height : null;
  const flow_limit_mm3_s = machine.max_flow_mm3_s ?? null;
  const held_back_by = holdBack(claimed, speed, { flow_needed_mm3_s, flow_limit_mm3_s });
  return {
    claimed,
    commanded_max,
    reached_max,
    share_within_5pct: tally.extrudingXy_s > 0 ? tally.atClaim_s / tally.extrudingXy_s : null,
    flow_needed_mm3_s,
    flow_limit_mm3_s,
    held_back_by,
    notes: width === null ? ['line width not known: no flow'] : [],
  };
}

/** What keeps a machine from its claim: the file, its acceleration, the flow; null for nothing. */
export function holdBack(
  claimed: number,
  { commanded_max, reached_max }: Pick<SpeedFacts, 'commanded_max' | 'reached_max'>,
  flow: Pick<ClaimFacts, 'flow_needed_mm3_s' | 'flow_limit_mm3_s'>,
): ClaimFacts['held_back_by'] {
  const falls = (value: number | null) => value === null || value < WITHIN * claimed - ALLOWANCE;
  if (falls(commanded_max)) return 'file';
  if (falls(reached_max)) return 'acceleration';
  return isFlowShort(flow) ? 'flow' : null;
}

const isFlowShort = ({
  flow_needed_mm3_s: needed,
  flow_limit_mm3_s: limit,
}: Pick<ClaimFacts, 'flow_needed_mm3_s' | 'flow_limit_mm3_s'>): boolean =>
  needed !== null && limit !== null && needed > limit + ALLOWANCE;

const positive = (value: unknown): number | null =>
  typeof value === 'number' && value > 0 ? value : null;

const formatShare = (share: number): string => {
  if (share <= 0) return 'none';
  return share < 0.01 ? 'under 1 %' : `${(100 * share).toFixed(0)} %`;
};

/** Claim, command and reach in one sentence. */
export function describeClaim(claim: ClaimFacts): string {
  const speed = (value: number | null) => (value === null ? 'nothing' : `${value.toFixed(0)} mm/s`);
  const reached = `the file asks for ${speed(claim.commanded_max)} and ${speed(claim.reached_max)} is reached`;
  const share =
    claim.share_within_5pct === null
      ? ''
      : `, within 5 % of the claim for ${formatShare(claim.share_within_5pct)} of the extruding time`;
  const needed = claim.flow_needed_mm3_s;
  const limit = claim.flow_limit_mm3_s;
  const isShort = isFlowShort(claim) && needed !== null && limit !== null;
  const flow = isShort
    ? `the claim would need ${needed.toFixed(1)} mm³/s, the hotend gives ${limit.toFixed(1)}`
    : '';
  const reason = {
    file: 'the file itself does not ask for it',
    acceleration: 'acceleration and short lines hold it back',
    flow,
  };
  const why = claim.held_back_by === null ? 'nothing holds it back' : reason[claim.held_back_by];
  const next = isShort && claim.held_back_by !== 'flow' ? `; next, ${flow}` : '';
  return `Claimed ${speed(claim.claimed)}: ${reached}${share}; ${why}${next}.`;
}

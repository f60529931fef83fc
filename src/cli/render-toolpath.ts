import { clockOf } from '../core/model/study/clock';
import { describeClaim, type ToolpathDifference, type ToolpathFacts } from '../core/toolpath';

const number = (value: number | null, digits: number, unit: string): string =>
  value === null ? 'not known' : `${value.toFixed(digits)} ${unit}`;

const share = (part: number, whole: number): string =>
  whole > 0 ? `${((100 * part) / whole).toFixed(1)} %` : 'none';

/** What a sliced file says, as text for a terminal. */
export function renderToolpath(facts: ToolpathFacts): string {
  const { speed, flow, annotated, held_back_s: held } = facts;
  const roles = Object.entries(facts.time_by_role_s).sort((a, b) => b[1] - a[1]);
  const heldTotal = Object.values(held).reduce((sum, time) => sum + time, 0);
  const lines = [
    facts.file,
    `  time        ${clockOf(facts.time_s)} by the motion model, ` +
      `${clockOf(facts.constant_speed_s)} if nothing had to ` +
      `accelerate${annotated.time_s === null ? '' : `, ${clockOf(annotated.time_s)} by its own word`}`,
    `  speed       asked for up to ${number(speed.commanded_max, 0, 'mm/s')}, reached up to ` +
      `${number(speed.reached_max, 0, 'mm/s')}; half the time at most ` +
      `${number(speed.reached_p50, 0, 'mm/s')}; at the speed asked for ` +
      `${speed.at_commanded_share === null ? 'never' : share(speed.at_commanded_share, 1)} of ` +
      'the time',
    `  flow        reached up to ${number(flow.reached_max, 1, 'mm³/s')}, 95 % of the time at ` +
      `most ${number(flow.reached_p95, 1, 'mm³/s')}`,
    `  held back   by the file ${share(held.command, heldTotal)}, axis speed ` +
      `${share(held.axis_speed, heldTotal)}, acceleration ` +
      `${share(held.acceleration, heldTotal)}, corners ${share(held.corner, heldTotal)}`,
    `  layers      ${facts.layers}, ${number(facts.layer_heights_mm.median, 3, 'mm')} each`,
    `  filament    ${number(facts.filament_mm, 1, 'mm')}, ${number(facts.filament_g, 2, 'g')}; ` +
      `${facts.retractions} retractions, ${facts.tool_changes} tool changes`,
    `  roles       ${roles.map(([role, time]) => `${role} ${clockOf(time)}`).join(', ')}`,
  ];
  if (facts.claim) lines.push(`  claim       ${describeClaim(facts.claim)}`);
  if (facts.bad_line_count > 0) {
    lines.push(`  ${facts.bad_line_count} broken lines were passed over:`);
    for (const bad of facts.bad_lines) {
      lines.push(`    line ${bad.line}: ${bad.why}: ${JSON.stringify(bad.text)}`);
    }
  }
  return `${lines.join('\n')}\n`;
}

/** In what sliced files differ, as text for a terminal. */
export function renderDifferences(
  files: readonly ToolpathFacts[],
  differences: readonly ToolpathDifference[],
): string {
  if (differences.length === 0) return 'No difference was found.\n';
  const lines = [`Differences (${files.map((facts) => facts.file).join(' | ')}):`];
  for (const { key, values, weight } of differences) {
    const said = values.map((value) => (value === null ? 'not known' : String(value)));
    lines.push(`  ${weight.padEnd(5)}  ${key}: ${said.join(' | ')}`);
  }
  return `${lines.join('\n')}\n`;
}

import { signed } from '../lib/format';

/** Looks at an instrument's zero, one after another, about nothing. */
export function ZeroStrip({ zeros }: { zeros: readonly { at: string; value_mm: number }[] }) {
  if (zeros.length === 0) return null;
  const most = Math.max(0.02, ...zeros.map((one) => Math.abs(one.value_mm)));
  const x = (at: number) => (zeros.length === 1 ? 60 : 6 + (108 * at) / (zeros.length - 1));
  const y = (value: number) => 14 - (10 * value) / most;
  const label = `zero: ${zeros.map((one) => `${signed(one.value_mm, 2)} on ${one.at.slice(0, 10)}`).join(', ')}`;
  return (
    <svg width={120} height={28} role="img" aria-label={label} data-hint={label}>
      <line x1={0} x2={120} y1={14} y2={14} stroke="var(--line)" />
      <polyline
        points={zeros.map((one, at) => `${x(at)},${y(one.value_mm)}`).join(' ')}
        fill="none"
        stroke="var(--ink-2)"
      />
      {zeros.map((one, at) => (
        <circle key={at} cx={x(at)} cy={y(one.value_mm)} r={2.5} fill="var(--ink)" />
      ))}
    </svg>
  );
}

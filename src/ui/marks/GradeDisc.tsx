interface GradeDiscProps {
  /** 0 none … 4 severe; a mean of grades may lie between. */
  grade: number;
  size?: number;
}

const FULL = 4;

/** How bad a place is, as a disc that fills: empty for clean, full for severe. */
export function GradeDisc({ grade, size = 20 }: GradeDiscProps) {
  const radius = size / 2 - 1.5;
  const share = Math.min(1, Math.max(0, grade / FULL));
  const turn = 2 * Math.PI * share;
  const [x, y] = [size / 2 + radius * Math.sin(turn), size / 2 - radius * Math.cos(turn)];
  const top = `${size / 2},${size / 2 - radius}`;
  return (
    <svg width={size} height={size} aria-hidden="true" className="inline-block align-middle">
      <circle cx={size / 2} cy={size / 2} r={radius} fill="var(--sheet)" stroke="var(--ink-2)" />
      {share >= 1 ? (
        <circle cx={size / 2} cy={size / 2} r={radius} fill="var(--ink)" />
      ) : (
        share > 0 && (
          <path
            d={
              `M${size / 2},${size / 2} L${top} A${radius},${radius} 0 ${share > 0.5 ? 1 : 0} 1 ` +
              `${x.toFixed(2)},${y.toFixed(2)} Z`
            }
            fill="var(--ink)"
          />
        )
      )}
    </svg>
  );
}

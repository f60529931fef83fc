interface VernierTicksProps {
  done: number;
  due: number;
  width?: number;
}

const TICKS = 17;

/** Two rows of ticks: above what is due, below, slightly offset, what is done. */
export function VernierTicks({ done, due, width = 128 }: VernierTicksProps) {
  const share = due === 0 ? 0 : Math.min(1, done / due);
  const lower = done === 0 ? 0 : Math.max(1, Math.round(share * TICKS));
  const step = (width - 2) / (TICKS - 1);
  const length = (at: number) => (at % 4 === 0 ? 7 : 4);
  return (
    <svg width={width} height={16} aria-hidden="true" className="block max-w-full">
      {Array.from({ length: TICKS }, (_, at) => (
        <line
          key={`due-${at}`}
          x1={1 + at * step}
          x2={1 + at * step}
          y1={7 - length(at)}
          y2={7}
          stroke="var(--line)"
          strokeWidth={1.2}
        />
      ))}
      {Array.from({ length: lower }, (_, at) => (
        <line
          key={`done-${at}`}
          x1={1 + at * step * 0.985}
          x2={1 + at * step * 0.985}
          y1={8.5}
          y2={8.5 + length(at)}
          stroke="var(--plum)"
          strokeWidth={1.4}
        />
      ))}
    </svg>
  );
}

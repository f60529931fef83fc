export interface StripLegendProps {
  /** What a dot is; null where the strips have none. */
  dot: string | null;
  /** Whether a band shows what is too small to matter. */
  hasBand: boolean;
}

/** What the marks of a strip mean: drawn as they are drawn there. */
export function StripLegend({ dot, hasBand }: StripLegendProps) {
  const dots = dot !== null && {
    text: `${dot} (filled: tuned profile)`,
    drawn: (
      <>
        <circle cx={7} cy={8} r={3} fill="var(--sheet)" stroke="var(--ink-2)" strokeWidth={1.2} />
        <circle cx={19} cy={8} r={3} fill="var(--ink-2)" stroke="var(--ink-2)" />
      </>
    ),
  };
  const marks = [
    ...(dots ? [dots] : []),
    {
      text: 'estimate',
      drawn: <line x1={13} x2={13} y1={1} y2={15} stroke="var(--ink-2)" strokeWidth={2.5} />,
    },
    {
      text: '95 % confidence interval',
      drawn: <line x1={2} x2={24} y1={8} y2={8} stroke="var(--ink-2)" strokeWidth={3} />,
    },
    ...(hasBand ? [BAND] : []),
  ];
  return (
    <ul
      className="flex flex-wrap gap-x-4 gap-y-1 px-3 py-2 text-2xs text-ink-2"
      aria-label="Legend"
    >
      {marks.map(({ text, drawn }) => (
        <li key={text} className="flex items-center gap-1.5">
          <svg width={26} height={16} aria-hidden="true">
            {drawn}
          </svg>
          {text}
        </li>
      ))}
      <li className="flex items-center gap-1.5">
        <span className="h-4 w-6 unknown" aria-hidden="true" /> not known
      </li>
    </ul>
  );
}

const BAND = {
  text: 'too small to matter, around the reference',
  drawn: <rect width={26} height={16} fill="var(--band)" />,
};

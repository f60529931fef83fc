const FILL: Record<string, 'full' | 'half' | 'empty' | 'crossed'> = {
  'as-promised': 'full',
  late: 'half',
  partly: 'half',
  nothing: 'empty',
  'false-alarm': 'crossed',
};

/**
 * How a machine answered, a disc a trial: full as promised, half late or partly, empty nothing,
 * crossed a false alarm.
 */
export function TrialDiscs({ outcomes }: { outcomes: readonly string[] }) {
  return (
    <svg width={outcomes.length * 12} height={12} aria-hidden="true" className="inline-block">
      {outcomes.map((outcome, at) => {
        const [x, fill] = [at * 12 + 6, FILL[outcome] ?? 'empty'];
        return (
          <g key={at}>
            <circle
              cx={x}
              cy={6}
              r={4}
              fill={fill === 'full' ? 'var(--ink)' : 'var(--sheet)'}
              stroke="var(--ink)"
              strokeWidth={1.2}
            />
            {fill === 'half' && <path d={`M${x} 2 a4 4 0 0 0 0 8 z`} fill="var(--ink)" />}
            {fill === 'crossed' && (
              <path d={`M${x - 2.5} 3.5 l5 5 m0 -5 l-5 5`} stroke="var(--ink)" strokeWidth={1.2} />
            )}
          </g>
        );
      })}
    </svg>
  );
}

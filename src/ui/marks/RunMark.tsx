/** How a planned print stands. */
export type RunState = 'success' | 'rescued' | 'failed' | 'aborted' | 'open' | 'due';

export const RUN_WORDS: Record<RunState, string> = {
  success: 'success',
  rescued: 'rescued',
  failed: 'failed',
  aborted: 'aborted',
  open: 'printing',
  due: 'not printed',
};

/** A print's state as a small plate, told apart by its shape alone. */
export function RunMark({ state }: { state: RunState }) {
  const isDark = state === 'failed' || state === 'aborted';
  return (
    <svg width={26} height={20} aria-hidden="true" className="block">
      <rect
        x={1}
        y={1}
        width={24}
        height={18}
        rx={3}
        fill={isDark ? 'var(--ink)' : 'var(--sheet)'}
        stroke={state === 'due' ? 'var(--line)' : state === 'open' ? 'var(--plum)' : 'var(--ink)'}
        strokeWidth={1.4}
        strokeDasharray={state === 'due' ? '3 2' : undefined}
      />
      {state === 'success' && (
        <path d="M8 10.5l3.5 3.5 7-8" fill="none" stroke="var(--ink)" strokeWidth={2} />
      )}
      {state === 'rescued' && (
        <path
          d="M7 14h12M8.5 11a4.5 4.5 0 0 1 9 0"
          fill="none"
          stroke="var(--ink)"
          strokeWidth={2}
        />
      )}
      {state === 'failed' && (
        <path d="M9 6l8 8M17 6l-8 8" fill="none" stroke="var(--sheet)" strokeWidth={2} />
      )}
      {state === 'aborted' && (
        <path d="M8 10h10" fill="none" stroke="var(--sheet)" strokeWidth={2.4} />
      )}
      {state === 'open' && <rect x={3} y={3} width={11} height={14} rx={1} fill="var(--plum)" />}
    </svg>
  );
}

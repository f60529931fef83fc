import type { ContenderMark } from '../../core/model/study';

interface BadgeProps {
  mark: ContenderMark;
  isReference?: boolean;
  size?: number;
  /** Whether the text beside it says the same. */
  isDecorative?: boolean;
}

/** A contender's badge: hollow for stock, solid for tuned; the reference carries a flag. */
export function Badge({ mark, isReference = false, size = 20, isDecorative = false }: BadgeProps) {
  const { letter, hue, isTuned } = mark;
  const kind = isTuned ? 'tuned' : 'stock';
  const flag = isReference ? 9 : 0;
  return (
    <svg
      className={`hue-${hue} inline-block shrink-0`}
      width={size + flag}
      height={size}
      {...(isDecorative
        ? { 'aria-hidden': true }
        : { role: 'img', 'aria-label': `${letter} ${kind}${isReference ? ', reference' : ''}` })}
    >
      <rect
        x={1}
        y={1}
        width={size - 2}
        height={size - 2}
        rx={2}
        fill={isTuned ? 'var(--hue)' : 'var(--sheet)'}
        stroke="var(--hue)"
        strokeWidth={2}
      />
      <text
        x={size / 2}
        y={size / 2 + 1}
        textAnchor="middle"
        dominantBaseline="middle"
        fontSize={letter.length > 1 ? size * 0.45 : size * 0.6}
        fontWeight={600}
        fill={isTuned ? 'var(--sheet)' : 'var(--hue)'}
      >
        {letter}
      </text>
      {isReference && (
        <path
          d={`M${size + 1.5} ${size / 2 - 4} l7 4 l-7 4 z`}
          fill="var(--plum)"
          data-mark="reference-flag"
        />
      )}
    </svg>
  );
}

import type { ReactNode } from 'react';

interface LeavingProps {
  children?: ReactNode;
  /** Whether it is a picture too, and leaves as one. */
  isPicture?: boolean;
  /** What it is called where no heading stands over it. */
  name?: string;
  /** The figures behind it, heads first, where they do not stand in a table. */
  figures?: readonly (readonly (string | number | null)[])[];
}

const TABLE_WAYS = [
  ['csv', 'CSV', 'Export as CSV'],
  ['copy', 'copy', 'copy to the clipboard'],
] as const;

const PICTURE_WAYS = [
  ['svg', 'SVG', 'Export as SVG'],
  ['png', 'PNG', 'Export as PNG'],
] as const;

/**
 * A table or picture that scrolls where it is wider than its place, and can be taken away: as CSV,
 * by the clipboard, as SVG and PNG. What its buttons do, `TakeAway` does for all of a page.
 */
export function Leaving({ children, isPicture = false, name, figures }: LeavingProps) {
  return (
    <div
      data-leavable={name ?? ''}
      data-figures={figures ? JSON.stringify(figures) : undefined}
      className="min-w-0"
    >
      <div className="overflow-x-auto">{children}</div>
      <p
        data-leaving=""
        className="flex w-fit items-center gap-0.5 px-2 text-2xs text-ink-2 print:hidden"
      >
        <span aria-hidden="true">export</span>
        {[...TABLE_WAYS, ...(isPicture ? PICTURE_WAYS : [])].map(([way, word, how]) => (
          <button
            key={way}
            type="button"
            data-leave={way}
            className="min-h-[24px] px-1 underline decoration-line hover:text-plum"
            aria-label={how}
          >
            {word}
          </button>
        ))}
      </p>
    </div>
  );
}

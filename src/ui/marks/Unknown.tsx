/** Not known: hatched, with the reason for those who ask. */
export function Unknown({ why = 'not known' }: { why?: string }) {
  return (
    <span
      className="inline-block min-w-10 rounded-sm unknown text-center text-ink-2"
      tabIndex={why === 'not known' ? undefined : 0}
      data-hint={why}
    >
      <span className="sr-only">{why}</span>
      <span aria-hidden="true">&nbsp;</span>
    </span>
  );
}

/** A whole cell of a table that is not known. */
export function UnknownCell({ why = 'not known', span = 1 }: { why?: string; span?: number }) {
  return (
    <td
      className="unknown px-2"
      colSpan={span}
      tabIndex={why === 'not known' ? undefined : 0}
      data-hint={why}
    >
      <span className="sr-only">{why}</span>
    </td>
  );
}

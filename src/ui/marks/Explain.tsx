import { methodOf } from '../../core/text/methods';

const LOOK =
  'ml-1 inline-grid size-6 place-items-center rounded-full border border-line ' +
  'text-xs font-normal text-ink-2 no-underline hover:bg-desk';

/** An (i) beside a term: two sentences about it on a rest, the whole on “Words and methods”. */
export function Explain({ term }: { term: string }) {
  const method = methodOf(term);
  if (!method) return null;
  return (
    <a
      href={`/words#${method.id}`}
      className={LOOK}
      aria-label={`${method.name}: what is this?`}
      data-hint={method.what}
    >
      i
    </a>
  );
}

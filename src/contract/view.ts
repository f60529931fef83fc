/** What the line-up strip has chosen. It stands in the address, so that a view can be sent on. */
export interface View {
  hidden: ReadonlySet<string>;
  /** The contender that the others are compared with, where it is not the study's own. */
  reference: string | null;
}

/** Reads the view from an address. */
export function viewOf(search: URLSearchParams): View {
  return {
    hidden: new Set(search.getAll('hide')),
    reference: search.get('ref'),
  };
}

/** A view as the query part of an address, with its question mark; empty for the plain view. */
export function viewQuery(view: View): string {
  const search = new URLSearchParams();
  for (const contender of [...view.hidden].sort()) search.append('hide', contender);
  if (view.reference !== null) search.set('ref', view.reference);
  const text = search.toString();
  return text === '' ? '' : `?${text}`;
}

/** The view with a contender shown where it was hidden, and hidden where it was shown. */
export function toggled(view: View, contender: string): View {
  const hidden = new Set(view.hidden);
  if (!hidden.delete(contender)) hidden.add(contender);
  return { ...view, hidden };
}

/** The view with another reference. */
export const withReference = (
  view: View,
  reference: string,
  studyReference: string | null,
): View => {
  const hidden = new Set(view.hidden);
  hidden.delete(reference);
  return { hidden, reference: reference === studyReference ? null : reference };
};

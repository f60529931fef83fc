import type { App } from '../app';
import type { PartName } from '../../core/answers/results';
import type { ContenderMark } from '../../core/model/study';
import { viewOf, viewQuery, type View } from '../../contract/view';
import { resultsOf, type Requested } from './results';
import { foundOrNull } from '../http/found';
import { findStudyFrame } from '../study/page';
import type { StudyFrame } from '../study/frame';
import type { APIContext } from 'astro';

/** What every page of results shows and needs. */
export interface ResultsPage<Name extends PartName> {
  frame: StudyFrame;
  view: View;
  query: string;
  results: Requested<Name>;
  /** The reference that the view asks for in place of the study's own. */
  askedReference: string | null;
  reference: string | null;
  /** The contenders that are not hidden. */
  marks: ContenderMark[];
}

/** Reads a results page's study, view and sections; null where there is no such study. */
export async function resultsPage<Name extends PartName>(
  app: App,
  context: Pick<APIContext, 'params' | 'url'>,
  names: readonly Name[],
): Promise<ResultsPage<Name> | null> {
  const view = viewOf(context.url.searchParams);
  const compared = (reference: string | null) =>
    foundOrNull(resultsOf(app, { studyId: context.params.study ?? '', reference }, names));
  // Most pages compare as the study does: their results are looked up, or made, beside their frame.
  const [frame, asStudy] = await Promise.all([
    findStudyFrame(app, context),
    view.reference === null ? compared(null) : null,
  ]);
  if (!frame) return null;
  const isKnown = frame.marks.some((mark) => mark.contender_id === view.reference);
  const askedReference = isKnown ? view.reference : null;
  const results = asStudy ?? (await compared(askedReference));
  if (!results) return null;
  return {
    frame,
    view,
    query: viewQuery(view),
    results,
    askedReference,
    reference: askedReference ?? frame.meta.reference,
    marks: frame.marks.filter((mark) => !view.hidden.has(mark.contender_id)),
  };
}

import { listSlicedFiles, type SlicedSummary } from '../data';
import { app } from './app';

/** The sliced files of a study, for a page. */
export const listSliced = (studyId: string): Promise<SlicedSummary[]> =>
  listSlicedFiles(app().db, studyId);

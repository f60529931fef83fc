import type { APIContext } from 'astro';
import { foundOrNull } from '../http/found';
import { studyFrame, type StudyFrame } from './frame';

/** A study's frame, for a page; null where there is no such study. */
export const findStudyFrame = (context: Pick<APIContext, 'params'>): Promise<StudyFrame | null> =>
  foundOrNull(studyFrame(context.params.study ?? ''));

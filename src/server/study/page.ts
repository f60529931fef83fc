import type { App } from '../app';
import type { APIContext } from 'astro';
import { foundOrNull } from '../http/found';
import { studyFrame, type StudyFrame } from './frame';

/** A study's frame, for a page; null where there is no such study. */
export const findStudyFrame = (
  app: App,
  context: Pick<APIContext, 'params'>,
): Promise<StudyFrame | null> => foundOrNull(studyFrame(app, context.params.study ?? ''));

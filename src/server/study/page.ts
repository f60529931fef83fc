import type { APIContext } from 'astro';
import { NotFoundError } from '../../data';
import { studyFrame, type StudyFrame } from './frame';

/** A study's frame, for a page; null where there is no such study. */
export async function findStudyFrame(
  context: Pick<APIContext, 'params'>,
): Promise<StudyFrame | null> {
  try {
    return await studyFrame(context.params.study ?? '');
  } catch (error) {
    if (error instanceof NotFoundError) return null;
    throw error;
  }
}

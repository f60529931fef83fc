import { findStudy, linkState, setLinked, type LinkState } from '../../data';
import { app } from '../app';

/** What the bench link knows in a study. @throws NotFoundError */
export async function linkOfStudy(studyId: string): Promise<LinkState> {
  await findStudy(app().db, studyId);
  return linkState(app().db, studyId);
}

/** Puts a study on the bench link, or takes it off. */
export async function putOnLink(studyId: string, isLinked: boolean): Promise<LinkState> {
  await findStudy(app().db, studyId);
  await setLinked(app().db, studyId, isLinked);
  return linkState(app().db, studyId);
}

import { findStudy, linkState, setLinked, type LinkState } from '../../data';
import type { App } from '../app';

/** What the bench link knows in a study, and where machines reach it. */
export interface StudyLink extends LinkState {
  /** Its addresses: of this computer, and of elsewhere where the doors are open. */
  addresses: string[];
}

/** What the bench link knows in a study that is there. */
export async function linkNow(app: App, studyId: string): Promise<StudyLink> {
  const { link, db } = app;
  const addresses = [link?.address, link?.outerAddress].filter((one) => typeof one === 'string');
  return { ...(await linkState(db, studyId)), addresses };
}

/** What the bench link knows in a study. @throws NotFoundError */
export async function linkOfStudy(app: App, studyId: string): Promise<StudyLink> {
  await findStudy(app.db, studyId);
  return linkNow(app, studyId);
}

/** Puts a study on the bench link, or takes it off. */
export async function putOnLink(app: App, studyId: string, isLinked: boolean): Promise<StudyLink> {
  await findStudy(app.db, studyId);
  await setLinked(app.db, studyId, isLinked);
  return linkNow(app, studyId);
}

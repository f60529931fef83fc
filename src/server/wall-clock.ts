import { wallClocks, type WallClock } from '../data';
import { app } from './app';

/** Where the wall-clock time of a study's finished prints went. */
export const wallClock = (studyId: string): Promise<WallClock[]> => wallClocks(app().db, studyId);

import { listAccess, type AccessEntry } from '../../data';
import { app } from '../app';

export type { AccessEntry } from '../../data';

/** What happened at the doors, the latest first, where it has a text in it. */
export const accessLog = (text: string, limit: number): Promise<AccessEntry[]> =>
  listAccess(app().db, text, limit);

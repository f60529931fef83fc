import { listAccess, type AccessEntry } from '../../data';
import type { App } from '../app';

export type { AccessEntry } from '../../data';

/** What happened at the doors, the latest first, where it has a text in it. */
export const accessLog = (app: App, text: string, limit: number): Promise<AccessEntry[]> =>
  listAccess(app.db, text, limit);

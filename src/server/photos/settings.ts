import { contenderSettings, type ContenderSettings } from '../../core/measures/image';
import { listTables } from '../../data';
import type { App } from '../app';

/** By contender, what its profile says of layers and walls. */
export const settingsOfContenders = async (
  app: App,
  studyId: string,
): Promise<Record<string, ContenderSettings>> =>
  contenderSettings(await listTables(app.db, studyId, ['contenders', 'profile_settings']));

import { keepConnection, type LastingConnection } from './lasting-connection';

/** A change of a study that was committed, by whatever process. */
export interface StudyChange {
  study_id: string;
  revision: string;
  /** Whether the study was put away. */
  is_gone: boolean;
  /** The page that made it, by its own id; null where it came otherwise. */
  tab: string | null;
  /** The tables, and parts beside them, that are another now. */
  parts: string[];
}

/**
 * Listens to what is committed to the studies of a database. While its connection is broken nothing is heard,
 * and what was said then is not said again.
 *
 * @param onChange told of each change
 * @param onGap told whenever changes may have been missed
 */
export const listenToStudies = (
  databaseUrl: string,
  onChange: (change: StudyChange) => void,
  onGap: () => void,
): LastingConnection =>
  keepConnection(databaseUrl, async (client, isFirst) => {
    client.on('notification', ({ payload }) => {
      if (payload !== undefined) onChange(JSON.parse(payload) as StudyChange);
    });
    await client.query('listen vergleich_studies');
    if (!isFirst) onGap();
  });

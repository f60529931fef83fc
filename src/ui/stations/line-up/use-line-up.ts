import type { LineUpPage } from '../../../contract/line-up';
import { ApiError, callApi, failureText } from '../../kit/request';
import { useSerialQueue } from '../../kit/use-serial-queue';
import { useLatest } from '../../kit/use-latest';

type Rows = Pick<LineUpPage['rows'], 'contenders' | 'machines' | 'profiles' | 'profile_settings'>;
type Change = Readonly<Record<string, unknown>>;

/** The rows of a line-up while they are typed into; each method answers what went wrong, or null. */
export interface LineUpEdits {
  rows: Rows;
  changeMachine: (machineId: string, change: Change) => Promise<string | null>;
  changeProfile: (profileId: string, change: Change) => Promise<string | null>;
  setSetting: (profileId: string, key: string, value: string) => Promise<string | null>;
}

/** A row that changes faster than this is others’ at the moment. */
const MOST_TRIES = 3;

/** Somebody else has changed meanwhile what is changed here. */
class OvertakenError extends Error {
  override name = 'OvertakenError';
}

/**
 * Changes a row as it stands. Where it is newer on the server, the change is laid over it, unless the very same
 * was changed there to something else: that is for a person to decide.
 *
 * @param show takes the row as it is on the server
 * @throws ApiError, UnreachableError, OvertakenError
 */
async function changeRow<Row extends { row_version: number }>(
  path: string,
  row: Row,
  change: Change,
  show: (row: Row) => void,
  attempt = 1,
): Promise<void> {
  try {
    show(await callApi<Row>('PATCH', path, { version: row.row_version, change }));
  } catch (error) {
    const now = error instanceof ApiError && error.status === 409 ? error.current : null;
    if (now == null) throw error;
    const newer = now as Row & Change;
    show(newer);
    const isOvertaken = Object.entries(change).some(
      ([field, value]) => newer[field] !== (row as Row & Change)[field] && newer[field] !== value,
    );
    if (isOvertaken || attempt === MOST_TRIES) {
      throw new OvertakenError(
        'Someone else has changed this value. Esc shows theirs, Enter saves yours.',
      );
    }
    await changeRow(path, newer, change, show, attempt + 1);
  }
}

/** Keeps the rows of a line-up as they are saved, one after another. */
export function useLineUp(studyId: string, given: Rows): LineUpEdits {
  const latest = useLatest(given);
  const inTurn = useSerialQueue();
  const base = `/studies/${studyId}`;
  const saved = (work: () => Promise<void>): Promise<string | null> =>
    inTurn(() => work().then(() => null, failureText));
  const changeIn = <Table extends 'machines' | 'profiles'>(
    table: Table,
    is: (row: Rows[Table][number]) => boolean,
    id: string,
    change: Change,
  ) =>
    saved(async () => {
      const rows: readonly Rows[Table][number][] = latest.read()[table];
      const row = rows.find(is);
      if (!row) return;
      await changeRow(`${base}/rows/${table}/${id}`, row, change, (now) =>
        latest.change((all) => {
          const known: readonly Rows[Table][number][] = all[table];
          return { ...all, [table]: known.map((one) => (is(one) ? now : one)) };
        }),
      );
    });
  return {
    rows: latest.shown,
    changeMachine: (id, change) => changeIn('machines', (row) => row.machine_id === id, id, change),
    changeProfile: (id, change) => changeIn('profiles', (row) => row.profile_id === id, id, change),
    setSetting: (profileId, key, value) =>
      saved(async () => {
        const answer = await callApi<{ key: string; value: string | null }>(
          'PUT',
          `${base}/line-up/settings`,
          { profile_id: profileId, key, value: value.trim() || null },
        );
        latest.change((all) => {
          const others = all.profile_settings.filter(
            (one) => one.profile_id !== profileId || one.key !== answer.key,
          );
          const own = { profile_id: profileId, key: answer.key, row_version: 1 };
          return {
            ...all,
            profile_settings:
              answer.value === null ? others : [...others, { ...own, value: answer.value }],
          };
        });
      }),
  };
}

import { useState } from 'react';
import type { LineUpPage } from '../../../server/line-up/line-up';
import { ApiError, callApi, failureText } from '../../kit/request';

type Rows = Pick<LineUpPage['rows'], 'contenders' | 'machines' | 'profiles' | 'profile_settings'>;

/** The rows of a line-up while they are typed into; each method answers what went wrong, or null. */
export interface LineUpEdits {
  rows: Rows;
  changeMachine: (machineId: string, change: object) => Promise<string | null>;
  changeProfile: (profileId: string, change: object) => Promise<string | null>;
  setSetting: (profileId: string, key: string, value: string) => Promise<string | null>;
}

/** Keeps the rows of a line-up as they are saved. */
export function useLineUp(studyId: string, given: Rows): LineUpEdits {
  const [rows, setRows] = useState(given);
  const base = `/studies/${studyId}`;
  const saved = async (work: () => Promise<void>): Promise<string | null> => {
    try {
      await work();
      return null;
    } catch (error) {
      if (error instanceof ApiError && error.status === 409) {
        return `${error.message} Load the page again to see it.`;
      }
      return failureText(error);
    }
  };
  return {
    rows,
    changeMachine: (machineId, change) =>
      saved(async () => {
        const row = rows.machines.find((one) => one.machine_id === machineId);
        const answer = await callApi<Rows['machines'][number]>(
          'PATCH',
          `${base}/rows/machines/${machineId}`,
          { version: row?.row_version ?? 1, change },
        );
        setRows((all) => ({
          ...all,
          machines: all.machines.map((one) => (one.machine_id === machineId ? answer : one)),
        }));
      }),
    changeProfile: (profileId, change) =>
      saved(async () => {
        const row = rows.profiles.find((one) => one.profile_id === profileId);
        const answer = await callApi<Rows['profiles'][number]>(
          'PATCH',
          `${base}/rows/profiles/${profileId}`,
          { version: row?.row_version ?? 1, change },
        );
        setRows((all) => ({
          ...all,
          profiles: all.profiles.map((one) => (one.profile_id === profileId ? answer : one)),
        }));
      }),
    setSetting: (profileId, key, value) =>
      saved(async () => {
        const answer = await callApi<{ key: string; value: string | null }>(
          'PUT',
          `${base}/line-up/settings`,
          { profile_id: profileId, key, value: value.trim() || null },
        );
        setRows((all) => {
          const others = all.profile_settings.filter(
            (one) => one.profile_id !== profileId || one.key !== answer.key,
          );
          const own = { profile_id: profileId, key: answer.key, row_version: 1 };
          return {
            ...all,
            profile_settings: answer.value === null ? others : [...others, { ...own, value: answer.value }], // prettier-ignore
          };
        });
      }),
  };
}

import { useCallback, useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { ReportPage, SeenSentence } from '../../server/report/page';
import type { StudyAbout } from '../../server/study/studies';
import type { ReportSettings } from '../../core/study';
import { ApiError, asItStands, callApi, failureText } from '../kit/request';
import { useInTurn } from '../kit/use-in-turn';
import type { SaveState } from '../records/use-record';

/** A sentence to be kept. */
export type Written = Pick<SeenSentence, 'kind' | 'contender_id' | 'text'> & {
  verdict_id: string | null;
  rests_on: readonly string[];
  version: number | null;
};

/** What the Report station knows, and all that can be done there. */
export function useReport(studyId: string, first: ReportPage) {
  const [page, setPage] = useState(first);
  const [save, setSave] = useState<SaveState>({ kind: 'idle' });
  const inTurn = useInTurn();
  const at = `/studies/${studyId}/report`;

  const refresh = useCallback(async () => {
    setPage(await asItStands(() => callApi<ReportPage>('GET', at)));
  }, [at]);

  /** Does something, then shows how things stand. */
  const act = async (work: () => Promise<unknown>): Promise<boolean> => {
    setSave({ kind: 'saving' });
    try {
      await work();
      setSave({ kind: 'saved', at: new Date() });
      await refresh().catch(() => undefined);
      return true;
    } catch (error) {
      const isConflict = error instanceof ApiError && error.status === 409;
      setSave({
        kind: 'refused',
        message: isConflict
          ? `${error.message} Here is how it stands now; what you typed is still in its field.`
          : failureText(error),
      });
      if (isConflict) await refresh().catch(() => undefined);
      return false;
    }
  };

  return {
    page,
    save,
    refresh,
    write: ({ verdict_id, ...written }: Written) =>
      act(() =>
        callApi('PUT', `${at}/words`, { verdict_id: verdict_id ?? `s-${uuid()}`, ...written }),
      ),
    take: (sentence: Pick<SeenSentence, 'verdict_id' | 'row_version'>) =>
      act(() =>
        callApi('DELETE', `${at}/words`, {
          verdict_id: sentence.verdict_id,
          version: sentence.row_version,
        }),
      ),
    order: (ids: readonly string[]) => act(() => callApi('POST', `${at}/words`, { order: ids })),
    throwAway: (key: string) => act(() => callApi('POST', `${at}/words`, { key })),
    // One after another: what is left in two fields at once is kept of both.
    settle: (change: Partial<ReportSettings>) =>
      inTurn(() => act(() => keepSettings(studyId, change))),
    freeze: () => act(() => callApi('POST', `${at}/revisions`, {})),
    publish: (number: number, name: string | null) =>
      act(() => callApi('PATCH', `${at}/revisions/${number}`, { publish: true, name })),
    withdraw: (number: number, withdraw: string) =>
      act(() => callApi('PATCH', `${at}/revisions/${number}`, { withdraw })),
    drop: (number: number) => act(() => callApi('DELETE', `${at}/revisions/${number}`)),
  };
}

const MOST_TRIES = 3;

/** Changes some of a report's settings as they stand now; what others changed stays. */
async function keepSettings(studyId: string, change: Partial<ReportSettings>): Promise<void> {
  for (let attempt = 1; ; attempt += 1) {
    const now = await callApi<StudyAbout>('GET', `/studies/${studyId}`);
    const report = { ...now.report, ...change };
    try {
      const body = { version: now.row_version, change: { report } };
      await callApi('PATCH', `/studies/${studyId}`, body);
      return;
    } catch (error) {
      const isPassing = error instanceof ApiError && error.status === 409;
      if (!isPassing || attempt >= MOST_TRIES) throw error;
    }
  }
}

export type Report = ReturnType<typeof useReport>;

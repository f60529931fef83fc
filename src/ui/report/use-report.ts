import { useCallback, useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { ReportPage, SeenSentence } from '../../contract/report';
import type { StudyAbout } from '../../contract/studies';
import type { ReportSettings } from '../../core/model/study';
import { ApiError, asItStands, callApi, failureText } from '../kit/request';
import { useSerialQueue } from '../kit/use-serial-queue';
import { useLatest } from '../kit/use-latest';
import type { SaveState } from '../records/use-record';

/** A sentence to be kept. */
export type Written = Pick<SeenSentence, 'kind' | 'contender_id' | 'text'> & {
  verdict_id: string | null;
  rests_on: readonly string[];
  version: number | null;
};

/** What can be changed of a sentence. */
type SentenceWords = Pick<Written, 'text' | 'contender_id' | 'rests_on'>;

/** What becomes of a sentence as it is. */
type SentenceChange = (now: SentenceWords) => Partial<SentenceWords>;

/**
 * What the Report station knows, and all that can be done there: one thing after another, from how
 * things stand then.
 */
export function useReport(studyId: string, first: ReportPage) {
  const { shown: page, read, change: setPage } = useLatest(first);
  const [save, setSave] = useState<SaveState>({ kind: 'idle' });
  const inTurn = useSerialQueue();
  const at = `/studies/${studyId}/report`;

  const refresh = useCallback(async () => {
    const found = await asItStands(() => callApi<ReportPage>('GET', at));
    setPage(() => found);
  }, [at, setPage]);

  /** Does something, then shows how things stand. */
  const act = (work: (now: ReportPage) => Promise<unknown>): Promise<boolean> =>
    inTurn(async () => {
      setSave({ kind: 'saving' });
      try {
        await work(read());
        setSave({ kind: 'saved', at: new Date() });
        await refresh().catch(() => undefined);
        return true;
      } catch (error) {
        const isConflict = error instanceof ApiError && error.status === 409;
        setSave({
          kind: 'refused',
          message: isConflict
            ? `${error.message} Here is the current text; what you typed is still in its field.`
            : failureText(error),
        });
        if (isConflict) await refresh().catch(() => undefined);
        return false;
      }
    });
  /** Does something with a sentence as it stands; what is gone is left alone. */
  const actOn = (id: string, work: (sentence: SeenSentence, now: ReportPage) => Promise<unknown>) =>
    act((now) => {
      const sentence = now.sentences.find((one) => one.verdict_id === id);
      return sentence ? work(sentence, now) : Promise.resolve();
    });
  const put = ({ verdict_id, ...written }: Written) =>
    callApi('PUT', `${at}/words`, { verdict_id: verdict_id ?? `s-${uuid()}`, ...written });

  return {
    page,
    save,
    refresh,
    write: (written: Omit<Written, 'verdict_id' | 'version'>) =>
      act(() => put({ ...written, verdict_id: null, version: null })),
    change: (id: string, change: SentenceChange) =>
      actOn(id, ({ verdict_id, kind, text, contender_id, citations, row_version }) => {
        const now = { text, contender_id, rests_on: citations.map(({ address }) => address) };
        return put({ verdict_id, kind, version: row_version, ...now, ...change(now) });
      }),
    take: (id: string) =>
      actOn(id, ({ verdict_id, row_version }) =>
        callApi('DELETE', `${at}/words`, { verdict_id, version: row_version }),
      ),
    move: (id: string, by: number) =>
      actOn(id, ({ kind }, { sentences }) => {
        const order = sentences.filter((one) => one.kind === kind).map((one) => one.verdict_id);
        const from = order.indexOf(id);
        order.splice(from + by, 0, ...order.splice(from, 1));
        return callApi('POST', `${at}/words`, { order });
      }),
    throwAway: (key: string) => act(() => callApi('POST', `${at}/words`, { key })),
    settle: (change: SettingsChange) => act(() => keepSettings(studyId, change)),
    freeze: () => act(() => callApi('POST', `${at}/revisions`, {})),
    publish: (number: number, name: string | null) =>
      act(() => callApi('PATCH', `${at}/revisions/${number}`, { publish: true, name })),
    withdraw: (number: number, withdraw: string) =>
      act(() => callApi('PATCH', `${at}/revisions/${number}`, { withdraw })),
    drop: (number: number) => act(() => callApi('DELETE', `${at}/revisions/${number}`)),
  };
}

/** What becomes of a report's settings as they are. */
type SettingsChange = (now: ReportSettings) => Partial<ReportSettings>;

const MOST_TRIES = 3;

/** Changes some of a report's settings as they stand now; what others changed stays. */
async function keepSettings(studyId: string, change: SettingsChange): Promise<void> {
  for (let attempt = 1; ; attempt += 1) {
    const now = await callApi<StudyAbout>('GET', `/studies/${studyId}`);
    const before = now.report ?? {};
    const report = { ...before, ...change(before) };
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

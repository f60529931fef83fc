import { useState } from 'react';
import { callApi, failureText } from '../kit/request';
import { useSerialQueue } from '../kit/use-serial-queue';
import type { ListedStudy } from './listing';

/** How a study is sorted. */
export type Shelf = Partial<Pick<ListedStudy, 'isArchived' | 'labels'>>;

/** Archives and labels studies at once; what the server refuses is taken back, with the reason. */
export function useShelf(studies: readonly ListedStudy[]) {
  const [shelves, setShelves] = useState<ReadonlyMap<string, Shelf>>(new Map());
  const [faults, setFaults] = useState<ReadonlyMap<string, string>>(new Map());
  const inTurn = useSerialQueue();
  const put = (study: ListedStudy, shelf: Shelf): void => {
    const { study_id } = study;
    const show = (own: Shelf) =>
      setShelves((now) => new Map(now).set(study_id, { ...now.get(study_id), ...own }));
    show(shelf);
    setFaults((now) => new Map([...now].filter(([id]) => id !== study_id)));
    inTurn(() => callApi('PUT', `/studies/${study_id}/shelf`, shelf)).catch((error: unknown) => {
      show({ isArchived: study.isArchived, labels: study.labels });
      setFaults((now) =>
        new Map(now).set(study_id, `The change was not saved: ${failureText(error)}`),
      );
    });
  };
  return {
    all: studies.map((study) => ({ ...study, ...shelves.get(study.study_id) })),
    faultOf: (studyId: string): string | null => faults.get(studyId) ?? null,
    put,
  };
}

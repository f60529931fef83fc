import type { ContenderMark } from '../../core/model/study';
import type { BenchZone } from '../../contract/inspect';
import type { PanelDraft, PanelPage } from '../../contract/panels';
import type { PhotosData } from '../../contract/photos';
import { useMemo, useState } from 'react';
import { couplesOf, usualAim } from '../../core/measures/panels';
import { callApi } from '../kit/request';
import { useTrying } from '../kit/use-trying';
import { subjectsOf } from '../photos/side-by-side/subjects';
import {
  allItems,
  begunDraft,
  candidatesOf,
  draftOfPhotos,
  draftOf,
  KINDS,
  placeOfDraft,
  type Candidate,
} from './panel-draft';

/** Keeps the plan, opens it for judges, gives it up. */
function useKeepingPlan(studyId: string, known: string | null, draft: PanelDraft) {
  const [kept, setKept] = useState(known);
  const { message, isBusy, attempt } = useTrying();
  const base = `/studies/${studyId}/panels`;
  /** Keeps the plan, once as a new panel and then as that one. */
  const save = async (): Promise<string> => {
    if (kept !== null) {
      await callApi('PUT', `${base}/${kept}`, draft);
      return kept;
    }
    const { panel_id } = await callApi<{ panel_id: string }>('POST', base, draft);
    setKept(panel_id);
    history.replaceState(history.state, '', pageOf(panel_id));
    return panel_id;
  };
  const pageOf = (panel: string) => `/studies/${studyId}/inspect/panels/${panel}`;
  const keep = () => attempt(async () => location.assign(pageOf(await save())));
  const open = () =>
    attempt(async () => {
      const panel = await save();
      await callApi('POST', `${base}/${panel}`, { do: 'open' });
      location.assign(pageOf(panel));
    });
  const drop = () =>
    attempt(async () => {
      await callApi('DELETE', `${base}/${kept}`);
      location.assign(`/studies/${studyId}/inspect/panels`);
    });
  return { kept, message, isBusy, keep, open, drop };
}

/** The draft of a panel: who is compared, what is shown, by how many, and keeping it. */
export function usePanelPlan(props: PanelPlannerProps) {
  const { specimens, marks, page, zones, studyId } = props;
  const subjects = useMemo(
    () => subjectsOf(props.photos, specimens, marks),
    [props.photos, specimens, marks],
  );
  const artefacts = useMemo(
    () => [...new Map(specimens.map((one) => [one.artefact_id, one.artefact]))],
    [specimens],
  );
  const [draft, setDraft] = useState<PanelDraft>(() =>
    page ? draftOf(page) : begunDraft(subjects, artefacts[0]?.[0] ?? null, zones, specimens),
  );
  const keeping = useKeepingPlan(studyId, page?.panel.panel_id ?? null, draft);
  const set = (change: Partial<PanelDraft>) => setDraft((before) => ({ ...before, ...change }));
  const isOfPhotos = draft.shown_as === 'photos';
  const subject = subjects.find(
    (one) =>
      one.artefact_id === draft.artefact_id && one.view === draft.view && one.light === draft.light,
  );
  const candidates = candidatesOf(draft, subject, specimens);
  const chosen = new Set(draft.items.map((one) => one.specimen_id));
  const place = placeOfDraft(draft);
  const inIt = marks.flatMap((mark) => {
    const own = candidates.filter(
      (one) => one.contender_id === mark.contender_id && chosen.has(one.specimen_id),
    );
    return own.length > 0
      ? [{ contender_id: mark.contender_id, specimens: own.map((one) => one.specimen_id) }]
      : [];
  });
  const couples = couplesOf({ kind: draft.kind, contenders: inIt, target: draft.target }).length;
  const planned = couples === 0 ? 0 : (draft.judges * draft.questions) / couples;
  const aim = { ...usualAim(draft.kind), ...(draft.effect !== null && { effect: draft.effect }) };
  const kind = KINDS.find((one) => one.kind === draft.kind);

  const shownOf = (of: PanelDraft, key: string): PanelDraft => {
    const found = subjects.find((one) => one.key === key);
    return found ? draftOfPhotos(of, found, zones, specimens) : of;
  };
  const showParts = (artefact_id: string | null) => {
    const next: PanelDraft = { ...draft, shown_as: 'parts', artefact_id };
    setDraft({ ...next, items: allItems(next, undefined, specimens) });
  };
  const toggle = (some: readonly Candidate[], isIn: boolean) => {
    const ids = new Set(some.map((one) => one.specimen_id));
    const rest = draft.items.filter((one) => !ids.has(one.specimen_id));
    set({
      items: isIn
        ? [...rest, ...some.map(({ specimen_id, path }) => ({ specimen_id, path }))]
        : rest,
    });
  };

  return {
    subjects,
    /** Photos of specimens that cannot be shown: no marks say where the part is on them. */
    withoutMarks: props.photos.filter((photo) => photo.filed && !photo.registration).length,
    artefacts,
    draft,
    setDraft,
    ...keeping,
    set,
    isOfPhotos,
    subject,
    candidates,
    chosen,
    place,
    inIt,
    couples,
    planned,
    aim,
    kind,
    shownOf,
    showParts,
    toggle,
  };
}

export type PanelPlan = ReturnType<typeof usePanelPlan>;

export interface PanelPlannerProps extends PhotosData {
  studyId: string;
  marks: readonly ContenderMark[];
  zones: Record<string, BenchZone[]>;
  /** The panel as it is planned so far; null for a new one. */
  page: PanelPage | null;
}

import { listPanelItems, listPanelJudges, questionsOfPanel, type Panelist } from '../../data';

/** What counts of what was said: what was asked of specimens that were not taken out. */
export async function countedAnswers(of: Panelist, panelId: string) {
  const out = new Set(
    (await listPanelItems(of, panelId))
      .filter((one) => one.taken_out_at !== null)
      .map((one) => one.specimen_id),
  );
  const judges = await listPanelJudges(of, panelId);
  const names = new Map(judges.map((one) => [one.judge_id, one.name]));
  const all = (await questionsOfPanel(of, panelId)).flatMap(
    ({ judge_id, items, choice, answered_at, seconds }) =>
      choice === null || items.some((item) => out.has(item))
        ? []
        : [{ judge: names.get(judge_id) ?? '', items, choice, at: answered_at, seconds }],
  );
  return { judges, answers: all };
}

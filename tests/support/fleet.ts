import { v7 as uuid } from 'uuid';

/**
 * Makes a study of some machines, two prints of a clip planned for each.
 *
 * @param isLinked whether it is on the bench link
 * @returns its id
 */
export async function createFleet(
  url: string,
  machines: number,
  { isLinked = false } = {},
): Promise<string> {
  const call = async (path: string, content: unknown): Promise<Record<string, unknown>> => {
    const response = await fetch(`${url}/api/v1${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(content),
    });
    const answer = (await response.json()) as Record<string, unknown>;
    if (!response.ok) throw new Error(`${path}: ${String(answer.detail)}`);
    return answer;
  };
  const study = uuid();
  await call('/studies', { study_id: study, title: 'A fleet', intent: 'machines' });
  const row = (table: string, content: object) => call(`/studies/${study}/rows/${table}`, content);
  await row('profiles', { profile_id: 'p', name: 'Stock', kind: 'stock' });
  await row('materials', { material_id: 'pla', type: 'PLA', lot: '1' });
  await row('artefacts', { artefact_id: 'clip', name: 'Clip' });
  for (let at = 1; at <= machines; at += 1) {
    await row('machines', { machine_id: `m-${at}`, name: `Machine ${at}` });
    const contender_id = `c-${at}`;
    const contender = { contender_id, label: `Machine ${at}`, profile_id: 'p' };
    await row('contenders', { ...contender, machine_id: `m-${at}` });
    await row('planned', { contender_id, artefact_id: 'clip', material_id: 'pla', repeats: 2 });
  }
  if (isLinked) await call(`/studies/${study}/link`, { is_linked: true });
  return study;
}

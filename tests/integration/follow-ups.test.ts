import { join } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import type { FollowUpsPage } from '../../src/server/runs/follow-ups';
import { served } from '../support/served';

const { call, get } = served([join('demo', 'winter-stock')]);
let study: string;
beforeAll(async () => {
  const [one] = await get<{ study_id: string }[]>('/studies');
  study = one?.study_id ?? '';
});
const page = () => get<FollowUpsPage>(`/studies/${study}/follow-ups`);
const between = (before: string, after: string) =>
  get<{ changed: string[]; things: number }>(
    `/studies/${study}/follow-ups/changed?before=${before}&after=${encodeURIComponent(after)}`,
  );
const follow = (more: object = {}) => ({
  follow_up_id: 'new',
  print_before: 'W-12',
  print_after: 'W-14',
  suspect: 'environment',
  changed: 'warmed',
  outcome: 'gone',
  finding: null,
  note: null,
  ...more,
});

describe('causes that were followed', () => {
  it('are told with what really differed, and where more than one thing did', async () => {
    const { chains } = await page();
    const said = chains.map(({ first, steps }) => [
      first.print_id,
      steps[0]?.after.print_id,
      steps[0]?.things,
    ]);
    expect(said).toEqual([
      ['W-12', 'W-13', 0],
      ['W-10', 'W-11', 1],
    ]);
    const grit = chains.find((chain) => chain.first.print_id === 'W-10')?.steps[0];
    expect(grit?.changed).toContain('material PETG → ABS');
  });

  it('can be looked at before they are printed', async () => {
    const same = await between('W-01', 'W-02');
    expect(same).toEqual({ changed: [], things: 0 });
    const other = await between('W-01', 'W-12');
    expect(other.things).toBe(2);
    expect(other.changed.join()).toContain('artefact Stair block → Spire pair');
    const { status } = await call(
      'GET',
      `/studies/${study}/follow-ups/changed?before=W-01&after=nothing`,
    );
    expect(status).toBe(404);
  });

  it('put those that went wrong first', async () => {
    const { prints } = await page();
    expect(prints.slice(0, 2).map((one) => one.print_id)).toEqual(['W-10', 'W-12']);
    expect(prints[0]?.incident).toMatchObject({ incident_id: 'W-I-1', cause: 'material' });
  });

  it('move the booking of the incident, and the history keeps the old one', async () => {
    const booking = { incident_id: 'W-I-2', cause: 'environment' };
    const added = await call('POST', `/studies/${study}/follow-ups`, {
      follow_up: follow(),
      booking,
    });
    expect(added.status).toBe(201);
    const incident = await get<{ cause: string }>(`/studies/${study}/rows/incidents/W-I-2`);
    expect(incident.cause).toBe('environment');
    const history = await get<{ before: { cause: string } }[]>(
      `/studies/${study}/history?table=incidents&incident_id=W-I-2`,
    );
    expect(history.map((one) => one.before?.cause)).toContain('machine');
    expect((await page()).chains).toHaveLength(3);
  });

  it('are kept whole or not at all', async () => {
    const booking = { incident_id: 'nothing', cause: 'machine' };
    const refused = await call('POST', `/studies/${study}/follow-ups`, {
      follow_up: follow({ follow_up_id: 'other' }),
      booking,
    });
    expect(refused.status).toBe(404);
    expect((await page()).chains).toHaveLength(3);
    const itself = await call('POST', `/studies/${study}/follow-ups`, {
      follow_up: follow({ follow_up_id: 'self', print_after: 'W-12' }),
    });
    expect([itself.status, itself.content.detail]).toEqual([
      422,
      'A print does not follow itself: choose the one after it.',
    ]);
    const nowhere = await call('POST', `/studies/${study}/follow-ups`, {
      follow_up: follow({ follow_up_id: 'far', print_after: 'W-99' }),
    });
    expect(nowhere.status).toBe(422);
  });
});

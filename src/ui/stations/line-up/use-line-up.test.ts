// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { json, keptRow, toldApi } from '../../../../tests/support/told-api';
import { useLineUp } from './use-line-up';

const api = toldApi();
let machine: ReturnType<
  typeof keptRow<{ machine_id: string; maker: string | null; nozzle_mm: number | null }>
>;
let profile: ReturnType<typeof keptRow<{ profile_id: string; name: string }>>;

beforeEach(() => {
  machine = keptRow({
    machine_id: 'a',
    maker: null as string | null,
    nozzle_mm: 0.4 as number | null,
  });
  profile = keptRow({ profile_id: 's', name: 'As shipped' });
  api.answers['PATCH /studies/u/rows/machines/a'] = (body) => machine.patch(body);
  api.answers['PATCH /studies/u/rows/profiles/s'] = (body) => profile.patch(body);
});

const opened = () =>
  renderHook(() =>
    useLineUp('u', {
      contenders: [],
      machines: [machine.row()],
      profiles: [profile.row()],
      profile_settings: [{ profile_id: 's', key: 'walls', value: '3', row_version: 1 }],
    } as never),
  );
type LineUp = ReturnType<typeof opened>['result'];
/** Does something with the line-up; what it was told it went wrong by. */
const doing = async <Result>(line: LineUp, work: (now: LineUp['current']) => Promise<Result>) => {
  let said: Result | undefined;
  await act(async () => {
    said = await work(line.current);
  });
  return said;
};
const patches = () => api.asked.filter(({ method }) => method === 'PATCH');

describe('a line-up that is typed into', () => {
  it('keeps two facts of one machine that are typed faster than the server answers', async () => {
    const { result } = opened();
    const said = await doing(result, (now) =>
      Promise.all([
        now.changeMachine('a', { maker: 'Skerry Works' }),
        now.changeMachine('a', { nozzle_mm: 0.6 }),
      ]),
    );
    expect(said).toEqual([null, null]);
    expect(machine.row()).toMatchObject({ maker: 'Skerry Works', nozzle_mm: 0.6, row_version: 3 });
    expect(result.current.rows.machines).toEqual([machine.row()]);
    // Each from the version that the one before it has made: none had to be sent again.
    expect(patches().map(({ body }) => (body as { version: number }).version)).toEqual([1, 2]);
  });

  it('lays a change over what somebody else has changed of the same row', async () => {
    const { result } = opened();
    machine.change({ maker: 'Skerry Works' });
    expect(await doing(result, (now) => now.changeMachine('a', { nozzle_mm: 0.6 }))).toBeNull();
    expect(machine.row()).toMatchObject({ maker: 'Skerry Works', nozzle_mm: 0.6 });
    expect(result.current.rows.machines).toEqual([machine.row()]);
  });

  it('asks where somebody else has changed the very same, and keeps it when it is said again', async () => {
    const { result } = opened();
    machine.change({ nozzle_mm: 0.8 });
    const said = await doing(result, (now) => now.changeMachine('a', { nozzle_mm: 0.6 }));
    expect(said).toContain('Someone else has changed this value');
    expect(machine.row().nozzle_mm).toBe(0.8);
    // What they made of it is shown.
    expect(result.current.rows.machines).toMatchObject([{ nozzle_mm: 0.8 }]);
    expect(await doing(result, (now) => now.changeMachine('a', { nozzle_mm: 0.6 }))).toBeNull();
    expect(machine.row().nozzle_mm).toBe(0.6);
  });

  it('has nothing to decide where somebody else has changed it to the same', async () => {
    const { result } = opened();
    machine.change({ nozzle_mm: 0.6 });
    expect(await doing(result, (now) => now.changeMachine('a', { nozzle_mm: 0.6 }))).toBeNull();
  });

  it('says what is refused, and goes on with the next', async () => {
    api.answers['PATCH /studies/u/rows/profiles/s'] = () =>
      json({ detail: 'that name is taken' }, 422);
    const { result } = opened();
    const said = await doing(result, (now) =>
      Promise.all([
        now.changeProfile('s', { name: 'Ours' }),
        now.changeMachine('a', { nozzle_mm: 0.6 }),
      ]),
    );
    expect(said).toEqual(['that name is taken', null]);
    expect(result.current.rows.profiles).toMatchObject([{ name: 'As shipped' }]);
  });

  it('gives up where it is changed by others again and again', async () => {
    const { result } = opened();
    api.answers['PATCH /studies/u/rows/machines/a'] = (body) => {
      machine.change({ maker: `maker ${machine.row().row_version}` });
      return machine.patch(body);
    };
    const said = await doing(result, (now) => now.changeMachine('a', { nozzle_mm: 0.6 }));
    expect(said).toContain('Someone else has changed this value');
    expect(patches()).toHaveLength(3);
    expect(result.current.rows.machines).toEqual([machine.row()]);
  });

  it('says that it was changed where the server does not tell how it stands', async () => {
    api.answers['PATCH /studies/u/rows/profiles/s'] = () =>
      json({ detail: 'It was changed.' }, 409);
    const { result } = opened();
    expect(await doing(result, (now) => now.changeProfile('s', { name: 'Ours' }))).toBe(
      'It was changed.',
    );
    expect(patches()).toHaveLength(1);
  });

  it('renames a profile', async () => {
    const { result } = opened();
    expect(await doing(result, (now) => now.changeProfile('s', { name: 'Stock 2' }))).toBeNull();
    expect(result.current.rows.profiles).toEqual([profile.row()]);
  });

  it('keeps a setting as the server writes it, and takes one out that is empty', async () => {
    api.answers['PUT /studies/u/line-up/settings'] = (body) => {
      const { value } = body as { value: string | null };
      return json({ key: 'infill', value: value && `${value}%` });
    };
    const { result } = opened();
    expect(await doing(result, (now) => now.setSetting('s', 'infill ', ' 20 '))).toBeNull();
    const settings = () =>
      result.current.rows.profile_settings.map(({ key, value }) => [key, value]);
    expect(settings()).toEqual([
      ['walls', '3'],
      ['infill', '20%'],
    ]);
    expect(api.asked[0]?.body).toEqual({ profile_id: 's', key: 'infill ', value: '20' });
    await doing(result, (now) => now.setSetting('s', 'infill', ' '));
    expect(api.asked[1]?.body).toEqual({ profile_id: 's', key: 'infill', value: null });
    expect(settings()).toEqual([['walls', '3']]);
  });
});

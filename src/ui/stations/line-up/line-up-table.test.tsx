// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { contenderMarks } from '../../../core/model/study';
import { smallStudy } from '../../../../tests/support/small-study';
import { json, toldApi } from '../../../../tests/support/told-api';
import { LineUpTable } from './LineUpTable';

const api = toldApi();
afterEach(cleanup);

const { tables } = smallStudy({
  machines: [
    { machine_id: 'a', name: 'Auklet', maker: 'Skerry Works', firmware: '2.4.1' },
    {
      machine_id: 'g',
      name: 'Gannet',
      kinematics: 'corexy',
      build_x_mm: 260,
      build_y_mm: 260,
      build_z_mm: 260,
    },
  ],
  profiles: [
    { profile_id: 's', name: 'As shipped', kind: 'stock' },
    { profile_id: 't', name: 'Ours', kind: 'tuned', parent_id: 's' },
  ],
  profile_settings: [
    { profile_id: 's', key: 'walls', value: '3' },
    { profile_id: 't', key: 'walls', value: '2' },
  ],
  contenders: [
    { contender_id: 'A-s', label: 'A', machine_id: 'a', profile_id: 's' },
    { contender_id: 'A-t', label: 'At', machine_id: 'a', profile_id: 't' },
    { contender_id: 'G-s', label: 'G', machine_id: 'g', profile_id: 's' },
  ],
});
const stored = <Row extends object>(rows: Row[]) => rows.map((row) => ({ ...row, row_version: 4 }));
const marks = contenderMarks(tables.contenders, tables.machines, tables.profiles);

const shown = (more: Partial<Parameters<typeof LineUpTable>[0]> = {}) =>
  render(
    <LineUpTable
      studyId="s"
      rows={
        {
          contenders: stored(tables.contenders),
          machines: stored(tables.machines),
          profiles: stored(tables.profiles),
          profile_settings: stored(tables.profile_settings),
          materials: [],
          spools: [],
          instruments: [],
        } as never
      }
      stated={[]}
      firmware={{}}
      today={{}}
      unequal={[]}
      marks={marks}
      fairness={[]}
      reference="A-s"
      {...more}
    />,
  );
const cell = (name: string | RegExp) => screen.getByRole('button', { name });
/** What was asked of the server. */
const changes = () => api.asked.map(({ method, path, body }) => [method, path, body]);

describe('the line-up as a table', () => {
  it('has ditto where the machine is the one beside it, and says what is not known', () => {
    shown();
    expect(cell('Auklet stock, maker: Skerry Works').textContent).toBe('Skerry Works');
    expect(cell('Auklet tuned, maker: Skerry Works').textContent).toBe('″');
    expect(cell('Gannet stock, maker: not known').className).toContain('unknown');
    // What is not known is not as beside it.
    expect(cell('Auklet tuned, motion: not known').className).toContain('unknown');
  });

  it('has bold what is not the stock parent’s, and whose each profile is', () => {
    shown();
    expect(cell('Auklet tuned, walls: 2').className).toContain('font-semibold');
    expect(cell('Auklet stock, walls: 3').className).not.toContain('font-semibold');
    expect(screen.getAllByText('ours, 1 change')).toHaveLength(1);
  });

  it('says which firmware prints had before, and what is another today', () => {
    const today = { g: [{ name: 'build_z_mm', was: 260, is: 250 }] };
    shown({ firmware: { a: ['2.3.0', '2.4.1'] }, today });
    expect(cell(/^Auklet stock, firmware: 2\.3\.0 → 2\.4\.1/)).toBeTruthy();
    expect(cell('Gannet stock, build, mm: 260 × 260 × 260 is 260 × 260 × 250 today')).toBeTruthy();
  });
});

describe('a cell', () => {
  it('is opened by the first letter, kept by Enter, and has the focus again', async () => {
    const machine = tables.machines[1];
    api.answers['PATCH /studies/s/rows/machines/g'] = () =>
      json({ ...machine, maker: 'Holm', row_version: 5 });
    shown();
    fireEvent.keyDown(cell('Gannet stock, maker: not known'), { key: 'H' });
    const field = screen.getByLabelText('Gannet stock, maker');
    expect((field as HTMLInputElement).value).toBe('H');
    fireEvent.change(field, { target: { value: 'Holm' } });
    fireEvent.keyDown(field, { key: 'Enter' });
    await waitFor(() => expect(document.activeElement).toBe(cell('Gannet stock, maker: Holm')));
    expect(changes()).toEqual([
      ['PATCH', '/studies/s/rows/machines/g', { version: 4, change: { maker: 'Holm' } }],
    ]);
  });

  it('is left by Esc as it was, and asks nothing where nothing was changed', () => {
    shown();
    fireEvent.click(cell('Auklet stock, maker: Skerry Works'));
    const field = screen.getByLabelText('Auklet stock, maker');
    fireEvent.change(field, { target: { value: 'Other' } });
    fireEvent.keyDown(field, { key: 'Escape' });
    expect(document.activeElement).toBe(cell('Auklet stock, maker: Skerry Works'));
    fireEvent.click(cell('Auklet stock, maker: Skerry Works'));
    fireEvent.blur(screen.getByLabelText('Auklet stock, maker'));
    expect(api.asked).toEqual([]);
  });

  it('says what is wrong, and has what was typed when it is opened again', async () => {
    shown();
    fireEvent.click(cell('Gannet stock, nozzle, mm: not known'));
    const field = screen.getByLabelText('Gannet stock, nozzle, mm');
    fireEvent.change(field, { target: { value: 'wide' } });
    fireEvent.keyDown(field, { key: 'Enter' });
    expect((await screen.findByRole('alert')).textContent).toBe('“wide” is not a number');
    fireEvent.click(cell('Gannet stock, nozzle, mm: wide'));
    expect((screen.getByLabelText('Gannet stock, nozzle, mm') as HTMLInputElement).value).toBe(
      'wide',
    );
    expect(api.asked).toEqual([]);
  });

  it('says so where somebody else has changed it meanwhile', async () => {
    const current = { ...stored(tables.machines)[0], firmware: '2.5', row_version: 9 };
    api.answers['PATCH /studies/s/rows/machines/a'] = () =>
      json({ detail: 'Changed.', current }, 409);
    shown();
    fireEvent.click(cell('Auklet stock, firmware: 2.4.1'));
    const field = screen.getByLabelText('Auklet stock, firmware');
    fireEvent.change(field, { target: { value: '3' } });
    fireEvent.keyDown(field, { key: 'Enter' });
    expect((await screen.findByRole('alert')).textContent).toBe(
      'Someone else has changed this value. Esc shows theirs, Enter saves yours.',
    );
    fireEvent.keyDown(cell(/^Auklet stock, firmware: 3/), { key: 'Escape' });
    expect(cell('Auklet stock, firmware: 2.5')).toBeTruthy();
  });

  it('gives the focus to nobody when its answer comes, and keeps what is typed elsewhere meanwhile', async () => {
    let answer: (found: Response) => void = () => undefined;
    api.answers['PATCH /studies/s/rows/machines/a'] = () =>
      new Promise((resolve) => (answer = resolve));
    shown();
    fireEvent.click(cell('Auklet stock, firmware: 2.4.1'));
    const field = screen.getByLabelText('Auklet stock, firmware');
    fireEvent.change(field, { target: { value: '2.5' } });
    fireEvent.keyDown(field, { key: 'Enter' });
    // It is closed at once, says what is on its way, and has the focus as the key left it.
    expect(document.activeElement).toBe(cell(/^Auklet stock, firmware: 2\.5/));
    fireEvent.click(cell('Gannet stock, maker: not known'));
    const other = screen.getByLabelText<HTMLInputElement>('Gannet stock, maker');
    fireEvent.change(other, { target: { value: 'Holm' } });
    await waitFor(() => expect(api.asked).toHaveLength(1));
    answer(json({ ...stored(tables.machines)[0], firmware: '2.5', row_version: 5 }));
    await waitFor(() => expect(screen.queryByText(/saving/)).toBeNull());
    expect(document.activeElement).toBe(other);
    expect(other.value).toBe('Holm');
  });

  it('of a setting is emptied by Delete, and shown as the server names it', async () => {
    api.answers['PUT /studies/s/line-up/settings'] = () =>
      json({ profile_id: 't', key: 'walls', value: null });
    shown();
    fireEvent.keyDown(cell('Auklet tuned, walls: 2'), { key: 'Delete' });
    await waitFor(() => expect(cell('Auklet tuned, walls: not known')).toBeTruthy());
    expect(changes()).toEqual([
      ['PUT', '/studies/s/line-up/settings', { profile_id: 't', key: 'walls', value: null }],
    ]);
  });

  it('is reached from the one beside it by arrow keys', () => {
    shown();
    const first = cell('Auklet stock, maker: Skerry Works');
    first.focus();
    fireEvent.keyDown(first, { key: 'ArrowRight' });
    fireEvent.keyDown(document.activeElement ?? first, { key: 'ArrowRight' });
    fireEvent.keyDown(document.activeElement ?? first, { key: 'ArrowDown' });
    expect(document.activeElement).toBe(cell('Gannet stock, motion: CoreXY'));
    fireEvent.keyDown(document.activeElement ?? first, { key: 'ArrowRight' });
    expect(document.activeElement).toBe(cell('Gannet stock, motion: CoreXY'));
  });
});

// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { contenderMarks } from '../../../core/model/study';
import { smallStudy } from '../../../../tests/support/small-study';
import { json, toldApi } from '../../../../tests/support/told-api';
import { PlanMatrix } from './PlanMatrix';

const api = toldApi();
afterEach(cleanup);

const PLANNED = '/studies/u/rows/planned';
const { tables } = smallStudy({
  machines: [{ machine_id: 'a', name: 'Auklet' }],
  profiles: [{ profile_id: 's', name: 'As shipped', kind: 'stock' }],
  contenders: [{ contender_id: 'A', label: 'A', machine_id: 'a', profile_id: 's' }],
});
const planned = (more: object = {}) => ({
  contender_id: 'A',
  artefact_id: 'clip',
  material_id: 'pla',
  repeats: 3,
  toolpath: 'sliced/clip.gcode',
  row_version: 4,
  ...more,
});
const file = (more: object = {}) => ({
  path: 'sliced/clip.gcode',
  contender_id: 'A',
  artefact_id: 'clip',
  time_s: 1800,
  annotated_time_s: null,
  ...more,
});

beforeEach(() => {
  api.answers[`POST ${PLANNED}`] = async (body) => {
    await new Promise((resolve) => setTimeout(resolve, 20));
    return json({ ...(body as object), row_version: 1 }, 201);
  };
  api.answers[`PATCH ${PLANNED}/A/clip/pla`] = (body) => {
    const { version, change } = body as { version: number; change: object };
    return json({ ...planned(), ...change, row_version: version + 1 });
  };
  api.answers[`DELETE ${PLANNED}/A/clip/pla`] = () => json(null, 204);
});

const shown = (more: object = {}) =>
  render(
    <PlanMatrix
      {...({
        studyId: 'u',
        marks: contenderMarks(tables.contenders, tables.machines, tables.profiles),
        reference: 'A',
        artefacts: [{ id: 'clip', name: 'Clip' }],
        materials: [
          { id: 'pla', name: 'PLA grey' },
          { id: 'petg', name: 'PETG' },
        ],
        planned: [],
        files: [file()],
        warnings: {},
        ...more,
      } as unknown as Parameters<typeof PlanMatrix>[0])}
    />,
  );
const repeats = () => screen.getByLabelText<HTMLInputElement>(/^Repeats: Clip/);
const type = (text: string) => {
  fireEvent.change(repeats(), { target: { value: text } });
  fireEvent.keyDown(repeats(), { key: 'Enter' });
};
const sent = () => api.asked.map(({ method, path, body }) => [method, path, body]);

describe('what is printed', () => {
  it('is typed into its cell, with the sliced file that is there for it', async () => {
    shown();
    type('4');
    await waitFor(() => expect(repeats().value).toBe('4'));
    expect(sent()).toEqual([
      [
        'POST',
        PLANNED,
        {
          contender_id: 'A',
          artefact_id: 'clip',
          material_id: 'pla',
          repeats: 4,
          toolpath: 'sliced/clip.gcode',
        },
      ],
    ]);
    expect(screen.getByText(/^4 prints/).textContent).toContain('2:00:00');
  });

  it('is changed again while it is still on its way: the last figure stands', async () => {
    shown();
    type('4');
    type('5');
    await waitFor(() => expect(repeats().value).toBe('5'));
    expect(sent().map(([method, , body]) => [method, body])).toEqual([
      ['POST', expect.objectContaining({ repeats: 4 })],
      ['PATCH', { version: 1, change: { repeats: 5 } }],
    ]);
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('is taken out by an empty cell, and put in again', async () => {
    shown({ planned: [planned()] });
    type('');
    type('2');
    await waitFor(() => expect(repeats().value).toBe('2'));
    expect(sent().map(([method, , body]) => [method, body])).toEqual([
      ['DELETE', { version: 4 }],
      ['POST', expect.objectContaining({ repeats: 2 })],
    ]);
  });

  it('is not sent where nothing is changed, nor what is no number of prints', () => {
    shown({ planned: [planned()] });
    type('3');
    type('three');
    expect(repeats().getAttribute('aria-invalid')).toBe('true');
    expect(api.asked).toEqual([]);
  });

  it('says what is refused, and shows what stands', async () => {
    api.answers[`PATCH ${PLANNED}/A/clip/pla`] = () => json({ detail: 'at most 200 repeats' }, 422);
    shown({ planned: [planned()] });
    type('900');
    await waitFor(() => expect(screen.getByText('at most 200 repeats')).toBeTruthy());
    expect(repeats().value).toBe('3');
  });

  it('is of one material at a time, first of the one that is used', () => {
    shown({ planned: [planned({ material_id: 'petg', repeats: 7 })] });
    expect(repeats().value).toBe('7');
    expect(screen.getByText(/^7 prints/)).toBeTruthy();
    cleanup();
    // Where several are used, of the one of which most is printed.
    shown({ planned: [planned({ repeats: 2 }), planned({ material_id: 'petg', repeats: 7 })] });
    expect(repeats().value).toBe('7');
    expect(screen.getByText(/^9 prints/)).toBeTruthy();
  });
});

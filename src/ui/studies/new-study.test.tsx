// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { json, toldApi } from '../../../tests/support/told-api';
import { NewStudy } from './NewStudy';

const api = toldApi();
afterEach(cleanup);

const assigned: string[] = [];
const shown = async (again = '', machine = '') => {
  assigned.length = 0;
  vi.stubGlobal('location', { assign: (to: string) => assigned.push(to) });
  api.answers['GET /things?kind=machine'] = () => json([{ uid: 'u-g', name: 'Gannet' }]);
  api.answers['POST /studies'] = () => json({ study_id: 'new' }, 201);
  const cancelled = vi.fn();
  const studies = [{ study_id: 'one', title: 'Clips' }];
  render(<NewStudy {...{ studies, again, machine }} onCancel={cancelled} />);
  await screen.findByRole('option', { name: 'Gannet' });
  return cancelled;
};
const choose = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const begin = async () => {
  fireEvent.click(screen.getByRole('button', { name: 'Begin' }));
  await waitFor(() => expect(assigned).toHaveLength(1));
  return api.asked.find(({ method }) => method === 'POST')?.body;
};

describe('a new study', () => {
  it('from nothing says what varies on purpose, and begins with its question', async () => {
    await shown();
    choose('title', 'Brackets');
    choose('what varies on purpose', 'tuning');
    expect(await begin()).toEqual({ title: 'Brackets', intent: 'tuning' });
    expect(assigned).toEqual(['/studies/new/question']);
  });

  it('again as another takes that one’s intent, says what it takes, and begins with its line-up', async () => {
    await shown('one');
    choose('title', 'Clips, once more');
    expect((screen.getByLabelText('what varies on purpose') as HTMLSelectElement).disabled).toBe(true); // prettier-ignore
    expect(screen.getByText(/It takes the line-up, parts, instruments/)).toBeTruthy();
    choose('with', 'u-g');
    expect(await begin()).toEqual({ title: 'Clips, once more', again: 'one', with: 'u-g' });
    expect(assigned).toEqual(['/studies/new/line-up']);
  });

  it('with a machine of the workshop begins with its line-up', async () => {
    await shown('', 'u-g');
    choose('title', 'The Gannet alone');
    expect(await begin()).toEqual({ title: 'The Gannet alone', intent: 'machines', with: 'u-g' });
    expect(assigned).toEqual(['/studies/new/line-up']);
  });

  it('that is refused says why and keeps what was typed; Escape leaves it', async () => {
    const cancelled = await shown();
    api.answers['POST /studies'] = () => json({ detail: 'There is such a study.' }, 409);
    choose('title', 'Clips');
    fireEvent.click(screen.getByRole('button', { name: 'Begin' }));
    expect((await screen.findByRole('alert')).textContent).toBe('There is such a study.');
    expect((screen.getByLabelText('title') as HTMLInputElement).value).toBe('Clips');
    expect(assigned).toEqual([]);
    fireEvent.keyDown(screen.getByLabelText('title'), { key: 'Escape' });
    expect(cancelled).toHaveBeenCalledOnce();
  });
});

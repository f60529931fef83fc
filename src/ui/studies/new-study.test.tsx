// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { json, toldApi } from '../../../tests/support/told-api';
import { NewStudy } from './NewStudy';

const api = toldApi();
const assign = vi.fn();

beforeEach(() => {
  assign.mockClear();
  vi.spyOn(window.location, 'assign').mockImplementation(assign);
  api.answers['GET /things?kind=machine'] = () => json([{ uid: 'u-1', name: 'Auklet 19' }]);
  api.answers['POST /studies'] = () => json({ study_id: 'new' }, 201);
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const shown = (more: Partial<Parameters<typeof NewStudy>[0]> = {}) =>
  render(
    <NewStudy
      {...({
        studies: [{ study_id: 'old', name: 'clips', title: 'Four machines' }],
        again: '',
        machine: '',
        onCancel: () => undefined,
        ...more,
      } as unknown as Parameters<typeof NewStudy>[0])}
    />,
  );
const form = () => screen.getByRole('form', { name: 'New study' });
const title = () => screen.getByLabelText<HTMLInputElement>(/^(?:title|what it is called)/i);
const made = () => api.asked.filter(({ method }) => method === 'POST').map(({ body }) => body);

describe('a new study', () => {
  it('is made once, however often Enter comes down, also while its page is on its way', async () => {
    shown();
    fireEvent.change(title(), { target: { value: 'Two machines' } });
    fireEvent.submit(form());
    fireEvent.submit(form());
    await waitFor(() => expect(assign).toHaveBeenCalledExactlyOnceWith('/studies/new/question'));
    fireEvent.submit(form());
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(made()).toEqual([{ title: 'Two machines', intent: 'machines' }]);
  });

  it('as another goes on with its line-up', async () => {
    shown({ again: 'old' });
    fireEvent.change(title(), { target: { value: 'Again' } });
    fireEvent.submit(form());
    await waitFor(() => expect(assign).toHaveBeenCalledWith('/studies/new/line-up'));
    expect(made()).toEqual([{ title: 'Again', again: 'old' }]);
  });

  it('that is refused can be tried again, and what was typed is there', async () => {
    api.answers['POST /studies'] = () => json({ detail: 'That title is too long.' }, 422);
    shown();
    fireEvent.change(title(), { target: { value: 'Two machines' } });
    fireEvent.submit(form());
    await screen.findByText('That title is too long.');
    expect(title().value).toBe('Two machines');
    api.answers['POST /studies'] = () => json({ study_id: 'new' }, 201);
    fireEvent.submit(form());
    await waitFor(() => expect(assign).toHaveBeenCalledOnce());
  });
});

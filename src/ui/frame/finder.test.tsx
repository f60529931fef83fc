// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { json, toldApi } from '../../../tests/support/told-api';
import { Finder } from './Finder';

const api = toldApi();
let gone: string[];
beforeEach(() => {
  gone = [];
  vi.spyOn(window.location, 'assign').mockImplementation((href) => {
    gone.push(String(href));
  });
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const GANNET = { kind: 'machine', name: 'Gannet X24', about: 'Holm Dynamics', href: '/machines/g' };
const STUDY = {
  kind: 'study',
  name: 'Gannet speeds',
  about: null,
  href: '/studies/s/results/glance',
};
const field = () => screen.getByRole('combobox');
const type = (text: string) => fireEvent.change(field(), { target: { value: text } });

describe('the finder', () => {
  it('is where Ctrl K leads, and proposes what is found, with what it is', async () => {
    api.answers['GET /find?q=gan'] = () => json([STUDY, GANNET]);
    render(<Finder studyId={null} />);
    fireEvent.keyDown(document.body, { key: 'k', ctrlKey: true });
    expect(document.activeElement).toBe(field());
    type('gan');
    const options = await screen.findAllByRole('option');
    expect(options.map((one) => one.textContent)).toEqual([
      'Gannet speedsstudy',
      'Gannet X24machineHolm Dynamics',
    ]);
    fireEvent.keyDown(field(), { key: 'ArrowDown' });
    fireEvent.keyDown(field(), { key: 'ArrowDown' });
    fireEvent.keyDown(field(), { key: 'Enter' });
    expect(gone).toEqual(['/machines/g']);
  });

  it('asks once typing rests, and shows the answer to what stands there, not an older one', async () => {
    let answerFirst: (answer: Response) => void = () => undefined;
    const first = new Promise<Response>((resolve) => (answerFirst = resolve));
    api.answers['GET /find?q=ga'] = () => first as unknown as Response;
    api.answers['GET /find?q=gannet'] = () => json([GANNET]);
    render(<Finder studyId={null} />);
    type('g');
    type('ga');
    await waitFor(() => expect(api.asked.map((one) => one.path)).toEqual(['/find?q=ga']));
    type('gannet');
    await screen.findByRole('option', { name: /^Gannet X24/ });
    answerFirst(json([STUDY]));
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(screen.getAllByRole('option')).toHaveLength(1);
  });

  it('takes a sticker’s code in a study before anything else', async () => {
    api.answers['GET /studies/s/find?code=K7-001'] = () => json({ href: '/studies/s/measure' });
    render(<Finder studyId="s" />);
    type('K7-001');
    fireEvent.keyDown(field(), { key: 'Enter' });
    await waitFor(() => expect(gone).toEqual(['/studies/s/measure']));
  });

  it('goes to the nearest where it is no code, and says so where nothing is', async () => {
    api.answers['GET /find?q=gannet&study=s'] = () => json([GANNET, STUDY]);
    api.answers['GET /find?q=none&study=s'] = () => json([]);
    render(<Finder studyId="s" />);
    type('gannet');
    fireEvent.keyDown(field(), { key: 'Enter' });
    await waitFor(() => expect(gone).toEqual(['/machines/g']));
    type('none');
    fireEvent.keyDown(field(), { key: 'Enter' });
    expect((await screen.findByRole('alert')).textContent).toBe(
      'Nothing carries “none” in its name or code.',
    );
  });
});

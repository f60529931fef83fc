// @vitest-environment happy-dom
import { cleanup, fireEvent, render, renderHook, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { json, toldApi } from '../../../tests/support/told-api';
import { PeopleTable } from '../access/PeopleTable';
import { NewZone } from '../artefacts/NewZone';
import { Remarks } from '../scorecard/Remarks';
import { AddBy } from '../stations/line-up/AddBy';
import { ProfileFromFile } from '../stations/line-up/ProfileFromFile';
import { NewItem } from '../workshop/NewItem';
import { useOnce } from './use-once';

const api = toldApi();
let goes: string[];

beforeEach(() => {
  goes = [];
  vi.spyOn(window.location, 'assign').mockImplementation((to) => void goes.push(String(to)));
  vi.spyOn(window.location, 'reload').mockImplementation(() => void goes.push('again'));
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

describe('what is done once', () => {
  it('is not begun again before it has ended, other things are, and it may be after', async () => {
    const { result } = renderHook(() => useOnce());
    const ends: (() => void)[] = [];
    const work = vi.fn(() => new Promise<void>((resolve) => ends.push(resolve)));
    result.current('a', work);
    result.current('a', work);
    result.current('b', work);
    expect(work).toHaveBeenCalledTimes(2);
    for (const end of ends) end();
    await waitFor(() => {
      result.current('a', work);
      expect(work).toHaveBeenCalledTimes(3);
    });
  });
});

const forms = {
  'a thing of the workshop': {
    form: <NewItem kind="machine" page="machines" />,
    fill: () => type('Name of a new machine', 'Auklet'),
    to: '/things',
    answer: { uid: 'u-1' },
    goes: '/machines/u-1',
  },
  'a zone': {
    form: (
      <NewZone
        studyId="u"
        artefactId="clip"
        drawn={{ side: 'front', u1: 0, v1: 0, u2: 20, v2: 10 }}
        onDrawn={() => undefined}
      />
    ),
    fill: () => type(/^name/i, 'front face'),
    to: '/studies/u/artefacts/clip/zones',
    answer: {},
    goes: 'again',
  },
  'a mark by hand': {
    form: <Remarks studyId="u" machines={[{ id: 'a', name: 'Auklet' }]} initial={[]} />,
    fill: () => type(/words/i, 'The door is quiet.'),
    to: '/studies/u/rows/marks',
    answer: {},
    goes: 'again',
  },
  'a profile of a sliced file': {
    form: <ProfileFromFile studyId="u" files={['sliced/a.gcode']} profiles={[]} />,
    fill: () => {
      fireEvent.change(screen.getByLabelText('sliced file'), {
        target: { value: 'sliced/a.gcode' },
      });
      type(/name/i, 'As shipped');
    },
    to: '/studies/u/profile-settings',
    answer: {},
    goes: 'again',
  },
} as const;
const type = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const added = (to: string) =>
  api.asked.filter(({ method, path }) => method === 'POST' && path === to);
const submit = () => {
  const form = document.querySelector('form');
  if (form) fireEvent.submit(form);
};

describe('what a form adds', () => {
  it.each(Object.entries(forms))('is one, however often it is sent: %s', async (_, one) => {
    api.answers[`POST ${one.to}`] = () => json(one.answer, 201);
    render(one.form);
    one.fill();
    submit();
    submit();
    await waitFor(() => expect(goes).toEqual([one.goes]));
    // Until the other page is there, a press is the same one still.
    submit();
    await new Promise((resolve) => setTimeout(resolve, 10));
    expect(added(one.to)).toHaveLength(1);
    expect(goes).toHaveLength(1);
  });

  it.each(Object.entries(forms))('can be sent again where it is refused: %s', async (_, one) => {
    api.answers[`POST ${one.to}`] = () => json({ detail: 'not so' }, 422);
    render(one.form);
    one.fill();
    submit();
    await screen.findByText(/not so/);
    api.answers[`POST ${one.to}`] = () => json(one.answer, 201);
    submit();
    await waitFor(() => expect(goes).toEqual([one.goes]));
  });

  it('to a line-up is one, by Enter twice', async () => {
    api.answers['POST /studies/u/line-up'] = () => json({}, 201);
    render(<AddBy studyId="u" kind="machine" placeholder="" offered={[]} />);
    const field = screen.getByRole('combobox', { name: 'Add a machine' });
    fireEvent.change(field, { target: { value: 'Auklet' } });
    fireEvent.keyDown(field, { key: 'Enter' });
    fireEvent.keyDown(field, { key: 'Enter' });
    await waitFor(() => expect(goes).toEqual(['again']));
    expect(added('/studies/u/line-up').map(({ body }) => body)).toEqual([
      { add: 'machine', picked: { name: 'Auklet' } },
    ]);
  });

  it('to those who are let in is one person, shown once', async () => {
    api.answers['POST /people'] = async () => {
      await new Promise((resolve) => setTimeout(resolve, 10));
      const person = {
        person_id: 'p',
        name: 'Kim',
        initials: 'KM',
        role: 'reader',
        row_version: 1,
        closed_at: null,
      };
      return json({ person, path: '/enter/x', minutes: 60 }, 201);
    };
    const props = { people: [], base: 'http://here' } as unknown as Parameters<
      typeof PeopleTable
    >[0];
    render(<PeopleTable {...props} />);
    fireEvent.change(screen.getByPlaceholderText(/^\+/), { target: { value: 'Kim' } });
    submit();
    submit();
    await waitFor(() => expect(added('/people')).toHaveLength(1));
    await waitFor(() => expect(screen.getAllByText(/^Kim/)).toHaveLength(1));
  });
});

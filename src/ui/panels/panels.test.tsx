// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { json, toldApi } from '../../../tests/support/told-api';
import type { Judging, PanelPage } from '../../contract/panels';
import { idOfPanel, usualAim } from '../../core/measures/panels';
import { JudgeBench } from './JudgeBench';
import { candidatesOf, draftOf, newDraft, placeOfDraft } from './panel-draft';
import { PowerCurve } from './PowerCurve';

afterEach(cleanup);

describe('a plan', () => {
  it('has an id of its question that no other panel has', () => {
    expect(idOfPanel('On which one is the wall smoother?', new Set())).toBe('is-the-wall-smoother');
    expect(idOfPanel('On which one is the wall smoother?', new Set(['is-the-wall-smoother']))).toBe(
      'is-the-wall-smoother-2',
    );
    expect(idOfPanel('¿?', new Set())).toBe('panel');
  });

  it('shows parts of an artefact, or its photos of one view', () => {
    const specimens = [
      { specimen_id: 's1', code: 'K1', contender_id: 'A', artefact_id: 'wall' },
      { specimen_id: 's2', code: null, contender_id: 'B', artefact_id: 'wall' },
      { specimen_id: 's3', code: 'K3', contender_id: 'B', artefact_id: 'block' },
    ];
    expect(candidatesOf({ shown_as: 'parts', artefact_id: 'wall' }, undefined, specimens)).toEqual([
      { specimen_id: 's1', code: 'K1', contender_id: 'A', path: null },
      { specimen_id: 's2', code: 's2', contender_id: 'B', path: null },
    ]);
    expect(candidatesOf({ shown_as: 'photos', artefact_id: 'wall' }, undefined, specimens)).toEqual(
      [],
    );
  });

  it('goes on where it was kept, without what only its course writes', () => {
    const draft = {
      ...newDraft('wall'),
      panel_id: 'p',
      aspect: 'Which?',
      x_mm: 1,
      y_mm: 2,
      w_mm: 3,
      h_mm: 4,
    };
    const { panel_id, kind, aspect, artefact_id, target, items: _, ...held } = draft;
    const page = {
      panel: { panel_id, kind, aspect, artefact_id, target, row_version: 3 },
      setup: {
        ...held,
        panel_id,
        row_version: 2,
        opened_at: null,
        closed_at: null,
        closed_by: null,
        revealed_at: null,
      },
      items: [
        {
          specimen_id: 's1',
          path: 'photos/a.jpg',
          code: 'K1',
          contender_id: 'A',
          seen: null,
          isOut: false,
        },
      ],
    } as unknown as PanelPage;
    expect(draftOf(page)).toEqual({
      ...draft,
      items: [{ specimen_id: 's1', path: 'photos/a.jpg' }],
    });
    expect(placeOfDraft(draft)).toEqual({ x: 1, y: 2, w: 3, h: 4 });
    expect(placeOfDraft({ ...draft, h_mm: null })).toBeNull();
  });

  it('says what its ballots would find, and how many are needed', () => {
    render(
      <PowerCurve kind="triangle" aim={{ ...usualAim('triangle'), effect: 0.5 }} planned={16} />,
    );
    expect(
      screen.getByText(
        /^16 ballots on each pair would find that 50 of 100 people can see a difference/,
      ),
    ).toBeTruthy();
    expect(screen.getByText('16 are needed for 80 of 100.')).toBeTruthy();
    cleanup();
    render(<PowerCurve kind="paired" aim={{ ...usualAim('paired'), effect: 0.5 }} planned={0} />);
    expect(screen.getByText('Choose who is compared.')).toBeTruthy();
    expect(screen.getByText(/There is too little to find/)).toBeTruthy();
  });
});

describe('a judge', () => {
  const asked = (number: number, answer: string | null = null): Judging => ({
    aspect: 'Which is smoother?',
    kind: 'paired',
    shown_as: 'photos',
    name: 'J01',
    wants_initials: false,
    free_places: [],
    state: 'asking',
    question: {
      number,
      of: 3,
      codes: ['317', '846'],
      pictures: ['/a', '/b'],
      picture_shape: 1,
      answer,
    },
  });
  const loaded = () =>
    act(() => {
      for (const image of screen.getAllByRole('img', { hidden: true })) fireEvent.load(image);
    });

  const api = toldApi();

  it('answers by a finger, once for each time, and goes back one', async () => {
    api.answers['GET /judging/L'] = () => json(asked(1));
    render(<JudgeBench link="L" />);
    await screen.findByText('1 of 3');
    api.answers['PUT /judging/L'] = () => json(asked(2));
    loaded();
    // Two fingers in one moment are one answer.
    act(() => {
      fireEvent.click(screen.getByRole('button', { name: /846/ }));
      fireEvent.click(screen.getByRole('button', { name: /317/ }));
    });
    await screen.findByText('2 of 3');
    // What was asked before has gone, and its pictures with it.
    expect(screen.getAllByRole('heading')).toHaveLength(1);
    expect(screen.getAllByRole('img', { hidden: true })).toHaveLength(2);
    const sent = api.asked.filter(({ method }) => method === 'PUT').map(({ body }) => body);
    expect(sent).toEqual([{ question: 1, answer: '846' }]);
    api.answers['GET /judging/L?question=1'] = () => json(asked(1, '846'));
    fireEvent.click(screen.getByRole('button', { name: '‹ back one' }));
    const chosen = (await screen.findByText('so far')).closest('button');
    expect(chosen?.getAttribute('aria-pressed')).toBe('true');
    expect(chosen?.textContent).toContain('846');
  });

  it('learns in words what does not work, and that it ends', async () => {
    api.answers['GET /judging/L'] = () => json(asked(3));
    render(<JudgeBench link="L" />);
    await screen.findByText('3 of 3');
    api.answers['PUT /judging/L'] = () => json({ detail: 'The panel is closed.' }, 409);
    loaded();
    fireEvent.click(screen.getByRole('button', { name: /no difference/ }));
    expect((await screen.findByRole('alert')).textContent).toContain('The panel is closed.');
    api.answers['DELETE /judging/L'] = () =>
      json({ ...asked(3), question: null, state: 'stopped' });
    fireEvent.click(screen.getByRole('button', { name: /Stop here/ }));
    await screen.findByText('You have stopped. Thank you.');
  });

  it('is told where a link leads nowhere', async () => {
    api.answers['GET /judging/L'] = () => json({ detail: 'This link leads to no panel.' }, 404);
    render(<JudgeBench link="L" />);
    await screen.findByText('This link leads to no panel.');
  });
});

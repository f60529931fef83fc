// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Judging } from '../../contract/panels';
import { json, toldApi } from '../../../tests/support/told-api';
import { JudgeBench } from './JudgeBench';

const api = toldApi();
const AT = '/judging/link';
afterEach(cleanup);

const asking = (number: number, more: Partial<Judging> = {}): Judging => ({
  aspect: 'Which is cleaner?',
  kind: 'paired',
  shown_as: 'parts',
  wants_initials: false,
  free_places: [],
  state: 'asking',
  name: 'J01',
  question: {
    number,
    of: 3,
    codes: [`${number}17`, `${number}42`],
    pictures: [],
    picture_shape: null,
    answer: null,
  },
  ...more,
});
/** What the server comes to next. */
let next: Judging;

beforeEach(() => {
  vi.spyOn(window, 'scrollTo').mockImplementation(() => undefined);
  next = asking(2);
  api.answers[`GET ${AT}`] = () => json(asking(1));
  api.answers[`PUT ${AT}`] = async () => {
    await new Promise((resolve) => setTimeout(resolve, 20));
    return json(next);
  };
});

const shown = async () => {
  render(<JudgeBench link="link" />);
  await screen.findByText('1 of 3');
};
const answers = () => api.asked.filter(({ method }) => method === 'PUT').map(({ body }) => body);
const tap = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));

describe('a judge', () => {
  it('answers one question with a finger that comes down twice', async () => {
    await shown();
    tap(/^117/);
    tap(/^117/);
    tap(/^142/);
    await screen.findByText('2 of 3');
    expect(answers()).toEqual([{ question: 1, answer: '117' }]);
  });

  it('answers by key: what lies left, what lies right, or no difference', async () => {
    await shown();
    fireEvent.keyDown(document.body, { key: '2' });
    await screen.findByText('2 of 3');
    next = asking(3);
    fireEvent.keyDown(document.body, { key: '0' });
    await screen.findByText('3 of 3');
    expect(answers()).toEqual([
      { question: 1, answer: '142' },
      { question: 2, answer: 'none' },
    ]);
  });

  it('is not asked for a difference where one of three must be chosen', async () => {
    const three = asking(1, { kind: 'triangle' });
    if (three.question) three.question.codes = ['117', '142', '163'];
    api.answers[`GET ${AT}`] = () => json(three);
    await shown();
    expect(screen.queryByRole('button', { name: /no difference/ })).toBeNull();
    fireEvent.keyDown(document.body, { key: '0' });
    // As a hand types: a scanner is many times faster.
    await new Promise((resolve) => setTimeout(resolve, 100));
    fireEvent.keyDown(document.body, { key: '3' });
    await waitFor(() => expect(answers()).toEqual([{ question: 1, answer: '163' }]));
  });

  it('judges no pictures before all are there, and nothing moves while they come', async () => {
    const photos = asking(1);
    Object.assign(photos.question ?? {}, { pictures: ['/a', '/b'], picture_shape: 1.5 });
    api.answers[`GET ${AT}`] = () => json(photos);
    await shown();
    const images = screen.getAllByRole<HTMLImageElement>('img');
    expect(images.map((image) => image.style.aspectRatio)).toEqual(['1.5 / 1', '1.5 / 1']);
    fireEvent.load(images[1] as HTMLImageElement);
    tap(/^117/);
    fireEvent.keyDown(document.body, { key: '2' });
    expect(answers()).toEqual([]);
    fireEvent.load(images[0] as HTMLImageElement);
    tap(/^117/);
    await waitFor(() => expect(answers()).toEqual([{ question: 1, answer: '117' }]));
  });

  it('goes back to a question, not before the first', async () => {
    api.answers[`GET ${AT}?question=1`] = () => json(asking(1));
    await shown();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /back one/ }).disabled).toBe(true);
    tap(/^117/);
    await screen.findByText('2 of 3');
    fireEvent.keyDown(document.body, { key: 'Backspace' });
    await screen.findByText('1 of 3');
  });

  it('is told what is refused, and the question stays', async () => {
    api.answers[`PUT ${AT}`] = () => json({ detail: 'The panel is closed.' }, 409);
    await shown();
    tap(/^117/);
    expect((await screen.findByRole('alert')).textContent).toContain('The panel is closed.');
    expect(screen.getByText('1 of 3')).toBeTruthy();
  });

  it.each([
    ['done', 'That was all. Thank you.'],
    ['closed', 'This panel is closed.'],
    ['full', 'All places are taken.'],
    ['stopped', 'You have stopped. Thank you.'],
  ] as const)('who has come to the end is told so: %s', async (state, title) => {
    api.answers[`GET ${AT}`] = () => json(asking(1, { state, question: null }));
    render(<JudgeBench link="link" />);
    await screen.findByText(title);
  });

  it('by a link that leads nowhere is told what the server says of it', async () => {
    api.answers[`GET ${AT}`] = () => json({ detail: 'This link leads to no panel.' }, 404);
    render(<JudgeBench link="link" />);
    await screen.findByText('This link leads to no panel.');
  });
});

// @vitest-environment happy-dom
import { act, cleanup, render, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { StudyProgress } from '../../contract/studies';
import {
  checklist,
  GUIDE,
  guideProgress,
  STATIONS,
  type StudyWork,
} from '../../core/answers/checklist';
import { callApi } from '../kit/request';
import { Guide } from './Guide';
import { StationRail } from './StationRail';
import { StillMissing } from './StillMissing';

const WORK: StudyWork = {
  hasQuestion: true,
  hasReference: false,
  hasDifference: true,
  contenders: 1,
  artefacts: 0,
  artefactsPlanned: 0,
  dimensions: 0,
  zones: 0,
  prints: 0,
  printsPlanned: 0,
  readings: 0,
  readingsNeeded: 0,
  zonesInspected: 0,
  zonesNeeded: 0,
  needsScorecard: true,
  hasScorecard: false,
  answers: 0,
  hasDisclosure: false,
  published: 0,
};

const progress = (work: StudyWork = WORK, isPractice = false): StudyProgress => {
  const steps = checklist(work);
  return {
    steps,
    stations: STATIONS.map((station) => {
      const own = steps.filter((step) => step.station === station.key);
      return {
        ...station,
        done: own.reduce((sum, { done }) => sum + done, 0),
        due: own.reduce((sum, { due }) => sum + due, 0),
      };
    }),
    guide: isPractice ? guideProgress(work, false) : null,
  };
};

let now = progress();
beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  now = progress();
  vi.stubGlobal('EventSource', undefined);
  vi.stubGlobal('fetch', (address: string) =>
    Promise.resolve(Response.json(address.endsWith('/progress') ? now : {})),
  );
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const wait = () => act(() => vi.advanceTimersByTimeAsync(1000));

it('links what is missing to its field and only names what is done or comes later', () => {
  render(<StationRail studyId="s" progress={now} station="question" query="" />);
  const list = document.querySelector<HTMLElement>('#checklist');
  if (!list) throw new Error('no checklist');
  const links = within(list).getAllByRole('link', { hidden: true });
  const reference = links.filter(
    (one) => one.getAttribute('href') === '/studies/s/question#reference',
  );
  // Once as the next step, once in the list.
  expect(reference).toHaveLength(2);
  expect(within(list).getByText('Question', { selector: 'dd' })).toBeTruthy();
  expect(within(list).queryByRole('link', { name: 'Prints', hidden: true })).toBeNull();
  expect(within(list).getByText('1 of 2')).toBeTruthy();
});

it('counts again a moment after this page has saved something', async () => {
  render(<StationRail studyId="s" progress={now} station="question" query="" />);
  expect(screen.getByRole('button', { name: /^2\/3 Question, something is missing/ })).toBeTruthy();
  now = progress({ ...WORK, hasReference: true });
  await act(() => callApi('PATCH', '/studies/s', {}));
  await wait();
  expect(screen.getByRole('button', { name: '3/3 Question: show the checklist' })).toBeTruthy();
});

it('says at a station what has not been begun, and nothing of what is under way', () => {
  const { rerender } = render(<StillMissing studyId="s" progress={now} station="question" />);
  expect(screen.getAllByRole('link').map((one) => one.textContent)).toEqual([
    'Choose the contender that the others are compared with',
  ]);
  rerender(<StillMissing studyId="s" progress={now} station="line-up" />);
  expect(screen.queryByRole('link')).toBeNull();
});

it('leads to the first step that is not done, is hidden, and goes on after a change', async () => {
  now = progress({ ...WORK, contenders: 2 }, true);
  render(<Guide studyId="s" progress={now} path="/studies/s/line-up" />);
  expect(screen.getByRole('heading').textContent).toContain(`step 4 of ${GUIDE.length}`);
  expect(screen.getByRole('link', { name: 'Go there' }).getAttribute('href')).toBe(
    '/studies/s/question#reference',
  );
  act(() => screen.getByRole('button', { name: 'Hide guide' }).click());
  expect(screen.queryByRole('link', { name: 'Go there' })).toBeNull();
  act(() => screen.getByRole('button', { name: 'Show guide' }).click());
  now = progress({ ...WORK, contenders: 2, hasReference: true }, true);
  await act(() => callApi('PATCH', '/studies/s', {}));
  await wait();
  expect(screen.getByRole('heading').textContent).toContain('step 5 of');
});

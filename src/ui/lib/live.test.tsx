// @vitest-environment happy-dom
import { act, cleanup, render, renderHook, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { eventStreams } from '../../../tests/support/event-source';
import { ChangedSince } from '../frame/ChangedSince';
import { TAB } from '../kit/request';
import { concerns, useStudyNews, type StudyNews } from './live';

const streams = eventStreams();
let isHidden = false;

beforeEach(() => {
  vi.useFakeTimers();
  isHidden = false;
  vi.spyOn(document, 'visibilityState', 'get').mockImplementation(() =>
    isHidden ? 'hidden' : 'visible',
  );
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  vi.useRealTimers();
});

const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
const see = (hidden: boolean) => {
  isHidden = hidden;
  document.dispatchEvent(new Event('visibilitychange'));
};
const change = (revision: string, parts: string[], tab: string | null = null) =>
  streams.at(-1)?.say('change', { revision, parts, tab });

const stand = (
  revision: string,
  touched: Record<string, number> = {},
  touched_by: Record<string, string> = {},
) => streams.at(-1)?.say('revision', { revision, touched, touched_by });

/** A page that was made at a revision, and what it hears. */
function listening(revision = '7') {
  document.body.innerHTML = `<main data-study-revision="${revision}"></main>`;
  const heard: StudyNews[] = [];
  const { unmount } = renderHook(() => useStudyNews('s-1', (news) => heard.push(news)));
  return { heard, unmount };
}

describe('a page of a study', () => {
  it('hears of what others do, and not of what it did itself', async () => {
    const { heard } = listening();
    expect(streams.map(({ address }) => address)).toEqual(['/api/v1/studies/s-1/live']);
    stand('7');
    change('8', ['readings'], TAB);
    change('9', ['prints'], 'another-page');
    await pass(500);
    expect(heard).toEqual([{ revision: '9', parts: ['prints'] }]);
  });

  it('hears of many that come at once as of one', async () => {
    const { heard } = listening();
    for (let at = 8; at < 68; at += 1) change(String(at), [at % 2 ? 'readings' : 'unmeasured']);
    await pass(500);
    expect(heard).toHaveLength(1);
    expect(heard[0]?.revision).toBe('67');
    expect(new Set(heard[0]?.parts)).toEqual(new Set(['readings', 'unmeasured']));
  });

  it('hears at once that it was made before the last change, and what that was of', async () => {
    const { heard } = listening('7');
    stand('8', { prints: 3, readings: 8 });
    await pass(500);
    expect(heard).toEqual([{ revision: '8', parts: ['readings'] }]);
  });

  it('holds no connection while nobody sees it, and catches up when somebody does', async () => {
    const { heard } = listening();
    stand('7');
    see(true);
    expect(streams[0]?.isClosed).toBe(true);
    see(false);
    expect(streams).toHaveLength(2);
    stand('7');
    await pass(500);
    expect(heard).toEqual([]);
    see(true);
    see(false);
    stand('9', { prints: 8, specimens: 9, readings: 7 });
    await pass(500);
    expect(heard).toEqual([{ revision: '9', parts: ['prints', 'specimens'] }]);
  });

  it('asks where nothing comes through, until something does', async () => {
    const asked: string[] = [];
    vi.stubGlobal('fetch', (address: string) => {
      asked.push(address);
      return Promise.resolve(
        new Response(
          JSON.stringify({ revision: String(7 + asked.length), touched: {}, touched_by: {} }),
        ),
      );
    });
    const { heard } = listening();
    streams[0]?.dispatchEvent(new Event('error'));
    await pass(11_000);
    expect(asked).toHaveLength(2);
    expect(heard.map(({ revision }) => revision)).toEqual(['8', '9']);
    streams[0]?.dispatchEvent(new Event('open'));
    await pass(20_000);
    expect(asked).toHaveLength(2);
  });

  it('has one stream for all that it shows, and none once it is left', () => {
    const one = listening();
    const other = renderHook(() => useStudyNews('s-1', () => undefined));
    expect(streams).toHaveLength(1);
    one.unmount();
    expect(streams[0]?.isClosed).toBe(false);
    other.unmount();
    expect(streams[0]?.isClosed).toBe(true);
  });
});

describe('news', () => {
  it('concern who wants one of their parts', () => {
    const news = { revision: '1', parts: ['prints', 'specimens'] };
    expect(concerns(news, 'readings', 'specimens')).toBe(true);
    expect(concerns(news, 'readings')).toBe(false);
  });
});

describe('the notice that a study was changed', () => {
  const shown = (isOfResults: boolean) =>
    render(<ChangedSince studyId="s-1" isOfResults={isOfResults} />);
  const said = () => screen.getByRole('status').textContent;

  it('is of new evidence where results are read: cards and reports are none', async () => {
    shown(true);
    change('8', ['cards', 'report']);
    await pass(500);
    expect(said()).toBe('');
    change('9', ['report', 'readings']);
    await pass(500);
    expect(said()).toMatch(/^There is newer evidence/);
    expect(screen.getByRole('button', { name: 'Update page' })).toBeTruthy();
  });

  it('is not of what was read of a file between the page and its first word', async () => {
    document.body.innerHTML = '<main data-study-revision="7"></main>';
    shown(false);
    stand('9', { profiles: 6, sliced_files: 9 });
    await pass(500);
    expect(said()).toBe('');
  });

  it('is not of what the server read of a file by itself, elsewhere', async () => {
    shown(false);
    change('8', ['sliced_files']);
    await pass(500);
    expect(said()).toBe('');
    change('9', ['profiles']);
    await pass(500);
    expect(said()).toMatch(/^This study has changed/);
  });
});

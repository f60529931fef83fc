// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { ContenderMark, ReportSettings } from '../../core/model/study';
import type { ReportPage, RevisionSeen, SeenSentence } from '../../contract/report';
import { ReportBench } from './ReportBench';

interface Asked {
  method: string;
  path: string;
  body: unknown;
}

let asked: Asked[];
let page: ReportPage;
let settings: ReportSettings;
let version: number;
/** What is refused, by method and end of the path. */
let refusals: { method: string; path: string; status: number; detail: string }[];

const json = (content: unknown, status = 200) =>
  new Response(JSON.stringify(content), {
    status,
    headers: { 'content-type': 'application/json' },
  });

const mark = (contender_id: string, machineName: string): ContenderMark => ({
  contender_id,
  machineName,
  letter: 'A',
  hue: 0,
  isTuned: false,
  variant: 'stock',
  profileName: 'stock',
  label: `${machineName} stock`,
});
const MARKS = [mark('A', 'Auklet'), mark('B', 'Gannet')];

const sentence = (verdict_id: string, more: Partial<SeenSentence> = {}): SeenSentence => ({
  verdict_id,
  contender_id: null,
  kind: 'answer',
  row_version: 3,
  citations: [],
  text: `Sentence ${verdict_id}.`,
  ...more,
});
const citation = (address: string, more: Partial<SeenSentence['citations'][number]> = {}) => ({
  address,
  said: `said ${address}`,
  isDecided: false,
  moved: null,
  isThere: true,
  ...more,
});
const revision = (number: number, more: Partial<RevisionSeen> = {}): RevisionSeen => ({
  number,
  state: 'ready',
  step: null,
  share: 1,
  message: null,
  notes: [],
  who: 'KM',
  asked_at: '2026-03-14T20:00:00Z',
  until: null,
  frozen_at: '2026-03-14T20:00:00Z',
  published_at: null,
  withdrawn_at: null,
  withdrawn_because: null,
  ...more,
});

beforeEach(() => {
  localStorage.clear();
  asked = [];
  refusals = [];
  version = 7;
  settings = {};
  page = {
    sentences: [],
    proposals: [],
    caveats: [],
    findings: [],
    revisions: [],
    address: null,
    settings,
    isStale: false,
  };
  // the document of tests has dialogs, but does not show them.
  HTMLDialogElement.prototype.showModal = function showModal(this: HTMLDialogElement) {
    this.open = true;
  };
  HTMLDialogElement.prototype.close = function close(this: HTMLDialogElement) {
    this.open = false;
  };
  vi.stubGlobal('fetch', (path: string, init: RequestInit) => {
    const method = init.method ?? 'GET';
    const body = typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined;
    const refusal = refusals.findIndex((one) => one.method === method && path.endsWith(one.path));
    if (refusal >= 0) {
      const [{ status = 500, detail = '' } = {}] = refusals.splice(refusal, 1);
      return Promise.resolve(json({ detail }, status));
    }
    if (method !== 'GET') asked.push({ method, path: path.replace('/api/v1/studies/s', ''), body });
    if (path.endsWith('/report')) return Promise.resolve(json({ ...page, settings }));
    if (method === 'PATCH' && path.endsWith('/studies/s')) {
      const sent = body as { version: number; change: { report: ReportSettings } };
      if (sent.version !== version) return Promise.resolve(json({ detail: 'changed' }, 409));
      settings = sent.change.report;
      version += 1;
      return Promise.resolve(json({ row_version: version }));
    }
    if (path.endsWith('/studies/s'))
      return Promise.resolve(json({ row_version: version, report: settings }));
    return Promise.resolve(json({ number: 1 }));
  });
});
afterEach(cleanup);

const opened = (more: Partial<ReportPage> = {}) => {
  page = { ...page, ...more };
  return render(<ReportBench studyId="s" studyName="clips" marks={MARKS} page={page} />);
};
const words = () => asked.filter(({ path }) => path === '/report/words');

describe('a sentence', () => {
  it('is kept when it is left, from the version that it was', async () => {
    opened({ sentences: [sentence('s1', { citations: [citation('accuracy:A:mae_mm')] })] });
    const field = screen.getByRole('textbox', { name: 'Sentence' });
    fireEvent.change(field, { target: { value: 'Take the Auklet.' } });
    expect(words()).toEqual([]);
    page = { ...page, sentences: [sentence('s1', { text: 'Take the Auklet.', row_version: 4 })] };
    fireEvent.blur(field);
    await waitFor(() => expect(words()).toHaveLength(1));
    expect(words()[0]).toMatchObject({
      method: 'PUT',
      body: {
        verdict_id: 's1',
        kind: 'answer',
        contender_id: null,
        text: 'Take the Auklet.',
        rests_on: ['accuracy:A:mae_mm'],
        version: 3,
      },
    });
    await screen.findByText(/^saved \d\d:\d\d$/);
    // Left as it is, or empty, it is not sent.
    fireEvent.blur(field);
    fireEvent.change(field, { target: { value: ' ' } });
    fireEvent.blur(field);
    expect(words()).toHaveLength(1);
  });

  it('that somebody else changed is refused, and what was typed stays in its field', async () => {
    opened({ sentences: [sentence('s1')] });
    refusals.push({ method: 'PUT', path: '/words', status: 409, detail: 'Changed meanwhile.' });
    const field = screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Sentence' });
    fireEvent.change(field, { target: { value: 'Mine.' } });
    page = { ...page, sentences: [sentence('s1', { text: 'Theirs.', row_version: 4 })] };
    fireEvent.blur(field);
    await screen.findByText(/not saved: Changed meanwhile\. Here is the current text/);
    expect(field.value).toBe('Mine.');
    // Kept once more, it is kept from their version.
    fireEvent.keyDown(field, { key: 'Enter', ctrlKey: true });
    await waitFor(() => expect(words()[0]?.body).toMatchObject({ text: 'Mine.', version: 4 }));
  });

  it('whose figures moved is marked with then and now, until somebody says that it stands', async () => {
    const moved = citation('pairs:B:surface', { moved: { then: 'better · 12', why: 'verdict' } });
    opened({ sentences: [sentence('s1', { citations: [moved] })] });
    expect(screen.getByText('Look again')).toBeTruthy();
    expect(screen.getByText('then better · 12; now said pairs:B:surface')).toBeTruthy();
    page = { ...page, sentences: [sentence('s1', { citations: [citation('pairs:B:surface')] })] };
    fireEvent.click(screen.getByRole('button', { name: 'It is still true' }));
    await waitFor(() => expect(screen.queryByText('Look again')).toBeNull());
    expect(words()[0]?.body).toMatchObject({ verdict_id: 's1', rests_on: ['pairs:B:surface'] });
  });

  it('rests on what was picked, and no more on what is taken away', async () => {
    localStorage.setItem('vergleich:picked:s', 'surface:B:index\tGannet: surface index');
    opened({ sentences: [sentence('s1', { citations: [citation('accuracy:A:mae_mm')] })] });
    fireEvent.click(await screen.findByRole('button', { name: 'rest on the 1 picked' }));
    await waitFor(() =>
      expect(words()[0]?.body).toMatchObject({
        rests_on: ['accuracy:A:mae_mm', 'surface:B:index'],
      }),
    );
    await waitFor(() => expect(localStorage.getItem('vergleich:picked:s')).toBe(''));
    fireEvent.click(screen.getByRole('button', { name: 'Do not use: said accuracy:A:mae_mm' }));
    await waitFor(() => expect(words()[1]?.body).toMatchObject({ rests_on: [] }));
  });

  it('of one’s own is added on the picked figures by Enter, about whom it is', async () => {
    localStorage.setItem('vergleich:picked:s', 'surface:B:index\tGannet: surface index');
    opened();
    const section = screen.getByRole('region', { name: /^What speaks for it/ });
    fireEvent.change(within(section).getByRole('combobox', { name: 'about' }), {
      target: { value: 'B' },
    });
    const field = within(section).getByLabelText('New sentence: What speaks for it');
    fireEvent.change(field, { target: { value: '  It is clean.  ' } });
    fireEvent.submit(field);
    await waitFor(() =>
      expect(words()[0]?.body).toMatchObject({
        kind: 'plus',
        contender_id: 'B',
        text: 'It is clean.',
        version: null,
        rests_on: ['surface:B:index'],
      }),
    );
    await waitFor(() => expect((field as HTMLInputElement).value).toBe(''));
  });

  it('of one’s own is added once, however often Enter comes down, and what is typed on stays', async () => {
    opened();
    const section = screen.getByRole('region', { name: /^What speaks for it/ });
    const field = within(section).getByLabelText<HTMLInputElement>(
      'New sentence: What speaks for it',
    );
    fireEvent.change(field, { target: { value: 'It is clean.' } });
    fireEvent.submit(field);
    fireEvent.submit(field);
    fireEvent.change(field, { target: { value: 'It is quiet.' } });
    await screen.findByText(/^saved \d\d:\d\d$/);
    expect(words()).toHaveLength(1);
    expect(field.value).toBe('It is quiet.');
    fireEvent.submit(field);
    await waitFor(() => expect(field.value).toBe(''));
    expect(words().map(({ body }) => (body as { text: string }).text)).toEqual([
      'It is clean.',
      'It is quiet.',
    ]);
  });

  it('is moved among its kind, and taken out', async () => {
    opened({ sentences: [sentence('s1'), sentence('s2'), sentence('s3', { kind: 'plus' })] });
    const section = screen.getByRole('region', { name: /^The answer/ });
    const [first, second] = within(section).getAllByRole('button', { name: 'Move down' });
    expect((second as HTMLButtonElement).disabled).toBe(true);
    if (first) fireEvent.click(first);
    await waitFor(() => expect(words()[0]?.body).toEqual({ order: ['s2', 's1'] }));
    const [out] = within(section).getAllByRole('button', { name: 'Take the sentence out' });
    if (out) fireEvent.click(out);
    await waitFor(() =>
      expect(words()[1]).toMatchObject({
        method: 'DELETE',
        body: { verdict_id: 's1', version: 3 },
      }),
    );
  });
});

describe('a proposed sentence', () => {
  const proposal = {
    key: 'plus B pairs:B:surface',
    kind: 'plus' as const,
    contender: 'B',
    text: 'Surface better by 20.',
    rests_on: ['pairs:B:surface'],
    said: ['said'],
  };

  it('is accepted as it is, or as it was edited', async () => {
    opened({ proposals: [proposal] });
    fireEvent.click(screen.getByRole('button', { name: 'Edit' }));
    const field = screen.getByRole('textbox', { name: 'Proposed sentence' });
    fireEvent.change(field, { target: { value: 'Much cleaner.' } });
    fireEvent.click(screen.getByRole('button', { name: 'Accept' }));
    await waitFor(() =>
      expect(words()[0]?.body).toMatchObject({
        kind: 'plus',
        contender_id: 'B',
        text: 'Much cleaner.',
        version: null,
        rests_on: ['pairs:B:surface'],
      }),
    );
  });

  it('is accepted once, however often it is pressed; what was edited stays where it is refused', async () => {
    opened({ proposals: [proposal] });
    refusals.push({ method: 'PUT', path: '/words', status: 422, detail: 'Too many sentences.' });
    fireEvent.click(screen.getByRole('button', { name: 'Edit' }));
    const field = screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Proposed sentence' });
    fireEvent.change(field, { target: { value: 'Much cleaner.' } });
    const accept = screen.getByRole('button', { name: 'Accept' });
    fireEvent.click(accept);
    await screen.findByText(/Too many sentences/);
    expect(field.value).toBe('Much cleaner.');
    fireEvent.click(accept);
    fireEvent.click(accept);
    await screen.findByText(/^saved \d\d:\d\d$/);
    expect(words()).toHaveLength(1);
  });

  it('is thrown away by its key', async () => {
    opened({ proposals: [proposal] });
    page = { ...page, proposals: [] };
    fireEvent.click(screen.getByRole('button', { name: 'Dismiss' }));
    await waitFor(() => expect(screen.queryByText('Surface better by 20.')).toBeNull());
    expect(words()[0]?.body).toEqual({ key: proposal.key });
  });
});

describe('what is in a report', () => {
  it('keeps what was typed in two fields at once, and what others changed', async () => {
    settings = { with_photos: false };
    opened({ settings });
    const by = screen.getByLabelText('Published by');
    const disclosure = screen.getByLabelText(/^Disclosure/);
    fireEvent.change(by, { target: { value: 'A club' } });
    fireEvent.change(disclosure, { target: { value: 'Bought.' } });
    fireEvent.blur(by);
    fireEvent.blur(disclosure);
    await waitFor(() =>
      expect(settings).toEqual({ with_photos: false, author: 'A club', disclosure: 'Bought.' }),
    );
  });

  it('has its parts chosen and moved', async () => {
    opened({ settings: { parts: ['answer', 'glance', 'data'] } });
    settings = { parts: ['answer', 'glance', 'data'] };
    fireEvent.click(screen.getByRole('button', { name: 'At a glance up' }));
    await waitFor(() => expect(settings.parts).toEqual(['glance', 'answer', 'data']));
    fireEvent.click(screen.getByRole('checkbox', { name: 'The data' }));
    await waitFor(() => expect(settings.parts).not.toContain('data'));
    fireEvent.click(screen.getByRole('checkbox', { name: 'Speed' }));
    await waitFor(() => expect(settings.parts?.at(-1)).toBe('speed'));
  });

  it('names what is missing first, with the way there', () => {
    opened({
      findings: [
        {
          key: 'a',
          weight: 'ready',
          text: 'The question is asked.',
          page: 'question',
          link: 'ask',
        },
        {
          key: 'b',
          weight: 'missing',
          text: 'No disclosure.',
          page: 'report#publishing',
          link: 'write it',
        },
      ],
    });
    const items = within(screen.getByRole('region', { name: /^Before publishing/ })).getAllByRole(
      'listitem',
    );
    expect(items[0]?.textContent).toContain('No disclosure.');
    expect(screen.getByRole('link', { name: 'write it' }).getAttribute('href')).toBe(
      '/studies/s/report#publishing',
    );
    expect(screen.queryByRole('link', { name: 'ask' })).toBeNull();
  });
});

describe('revisions', () => {
  it('show how far they are, and their forms once they are made', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    try {
      const making = revision(2, {
        state: 'making',
        step: 'computing every figure',
        share: 0.4,
        frozen_at: null,
      });
      opened({ revisions: [making, revision(1)] });
      expect(screen.getByText('computing every figure …')).toBeTruthy();
      const freeze = screen.getByRole<HTMLButtonElement>('button', { name: 'Freeze report 3' });
      expect(freeze.disabled).toBe(true);
      expect(screen.getByRole('button', { name: 'Stop' })).toBeTruthy();
      page = { ...page, revisions: [revision(2, { notes: ['No PDF: no browser.'] }), revision(1)] };
      await act(() => vi.advanceTimersByTimeAsync(1000));
      const line = document.querySelector<HTMLElement>('[data-revision="2"]');
      if (!line) throw new Error('no revision');
      expect(within(line).getByRole('link', { name: 'zip' })).toBeTruthy();
      // What could not be made is said, and not offered.
      expect(within(line).getByText('No PDF: no browser.')).toBeTruthy();
      expect(within(line).queryByRole('link', { name: 'PDF' })).toBeNull();
      expect(freeze.disabled).toBe(false);
    } finally {
      vi.useRealTimers();
    }
  });

  it('are published in secret or under a name, with what is missing said', async () => {
    const findings = [
      { key: 'b', weight: 'missing' as const, text: 'No disclosure.', page: '', link: '' },
    ];
    opened({ revisions: [revision(1)], findings });
    fireEvent.click(screen.getByRole('button', { name: 'Publish' }));
    const panel = screen.getByRole('dialog');
    expect(within(panel).getByText('No disclosure.')).toBeTruthy();
    fireEvent.click(within(panel).getByLabelText(/^Anyone who can reach/));
    fireEvent.change(within(panel).getByLabelText('/r/'), { target: { value: 'our-clips' } });
    fireEvent.click(within(panel).getByRole('button', { name: 'Publish' }));
    await waitFor(() =>
      expect(asked.at(-1)).toEqual({
        method: 'PATCH',
        path: '/report/revisions/1',
        body: { publish: true, name: 'our-clips' },
      }),
    );
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  it('are withdrawn with a reason, which stands with them', async () => {
    opened({ revisions: [revision(1, { published_at: '2026-03-15T08:00:00Z' })] });
    fireEvent.click(screen.getByRole('button', { name: 'Withdraw' }));
    const panel = screen.getByRole('dialog');
    refusals.push({ method: 'PATCH', path: '/revisions/1', status: 400, detail: 'say why' });
    fireEvent.change(within(panel).getByLabelText('why'), {
      target: { value: 'A reading was wrong.' },
    });
    fireEvent.click(within(panel).getByRole('button', { name: 'Withdraw' }));
    await screen.findByText('not saved: say why');
    expect(screen.queryByRole('dialog')).not.toBeNull();
    page = {
      ...page,
      revisions: [
        revision(1, {
          published_at: 'x',
          withdrawn_at: '2026-03-16T08:00:00Z',
          withdrawn_because: 'A reading was wrong.',
        }),
      ],
    };
    fireEvent.click(within(panel).getByRole('button', { name: 'Withdraw' }));
    await screen.findByText('Withdrawn: A reading was wrong.');
    expect(screen.queryByRole('button', { name: 'Publish' })).toBeNull();
  });

  it('that nobody has read are thrown away, published ones are not', () => {
    opened({ revisions: [revision(2), revision(1, { published_at: '2026-03-15T08:00:00Z' })] });
    expect(screen.getAllByRole('button', { name: 'Delete' })).toHaveLength(1);
    expect(screen.getAllByRole('button', { name: 'What changed' })).toHaveLength(1);
  });
});

// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import type { ReportSettings } from '../../core/model/study';
import type { ReportPage, SeenSentence } from '../../contract/report';
import { json, toldApi } from '../../../tests/support/told-api';
import { useReport, type Report } from './use-report';

const api = toldApi();
const AT = '/studies/u/report';

/** What the server has. */
let sentences: SeenSentence[];
let settings: ReportSettings;
let version: number;

const sentence = (verdict_id: string, more: Partial<SeenSentence> = {}): SeenSentence => ({
  verdict_id,
  contender_id: null,
  kind: 'answer',
  row_version: 1,
  text: `Says ${verdict_id}.`,
  citations: ['accuracy:A', 'speed:A'].map(
    (address) => ({ address }) as SeenSentence['citations'][number],
  ),
  ...more,
});
const page = () => ({ sentences, settings, proposals: [], revisions: [] }) as unknown as ReportPage;
const refused = (detail: string) => json({ detail }, 409);

interface Put {
  verdict_id: string;
  kind: SeenSentence['kind'];
  text: string;
  contender_id: string | null;
  rests_on: string[];
  version: number | null;
}

beforeEach(() => {
  sentences = [sentence('s1'), sentence('s2'), sentence('s3'), sentence('p1', { kind: 'plus' })];
  settings = { parts: ['question', 'line-up', 'accuracy'] } as ReportSettings;
  version = 7;
  api.answers[`GET ${AT}`] = () => json(page());
  api.answers[`PUT ${AT}/words`] = (body) => {
    const { rests_on, version: from, ...own } = body as Put;
    const known = sentences.find((one) => one.verdict_id === own.verdict_id);
    if (known && known.row_version !== from) return refused('It was changed by someone else.');
    const citations = rests_on.map((address) => ({ address }) as SeenSentence['citations'][number]);
    const row = { ...own, citations, row_version: (from ?? 0) + 1 };
    sentences = known ? sentences.map((one) => (one === known ? row : one)) : [...sentences, row];
    return json(row);
  };
  api.answers[`DELETE ${AT}/words`] = (body) => {
    const { verdict_id, version: from } = body as { verdict_id: string; version: number };
    const known = sentences.find((one) => one.verdict_id === verdict_id);
    if (known?.row_version !== from) return refused('It was changed by someone else.');
    sentences = sentences.filter((one) => one !== known);
    return json(null, 204);
  };
  api.answers[`POST ${AT}/words`] = (body) => {
    const { order } = body as { order: string[] };
    sentences.sort((a, b) => order.indexOf(a.verdict_id) - order.indexOf(b.verdict_id));
    return json(null, 204);
  };
  api.answers['GET /studies/u'] = () => json({ row_version: version, report: settings });
  api.answers['PATCH /studies/u'] = (body) => {
    const { version: from, change } = body as {
      version: number;
      change: { report: ReportSettings };
    };
    if (from !== version) return refused('The study was changed meanwhile.');
    settings = change.report;
    version += 1;
    return json({ row_version: version });
  };
});

const opened = () => renderHook(() => useReport('u', page())).result;
/** Does things with the report that a hand asks for before the first of them is answered. */
const doing = async (report: { current: Report }, work: (now: Report) => Promise<boolean>[]) => {
  let said: boolean[] = [];
  await act(async () => {
    said = await Promise.all(work(report.current));
  });
  return said;
};
/** Rests a sentence on one figure less. */
const without =
  (address: string) =>
  ({ rests_on }: { rests_on: readonly string[] }) => ({
    rests_on: rests_on.filter((one) => one !== address),
  });
const shown = (report: { current: Report }, id: string) =>
  report.current.page.sentences.find((one) => one.verdict_id === id);
const sent = (method: string) => api.asked.filter((one) => one.method === method);

describe('what is done with a report before the server has answered', () => {
  it('changes one sentence twice: both stand, each from the version that it then has', async () => {
    const report = opened();
    const said = await doing(report, (now) => [
      now.change('s1', () => ({ contender_id: 'A' })),
      now.change('s1', without('speed:A')),
      now.change('s1', () => ({ text: 'Says more.' })),
    ]);
    expect(said).toEqual([true, true, true]);
    expect(sent('PUT').map(({ body }) => (body as Put).version)).toEqual([1, 2, 3]);
    expect(shown(report, 's1')).toMatchObject({
      contender_id: 'A',
      text: 'Says more.',
      citations: [{ address: 'accuracy:A' }],
    });
  });

  it('rests a sentence on two figures less, and on one more: none comes back', async () => {
    const report = opened();
    await doing(report, (now) => [
      now.change('s1', without('speed:A')),
      now.change('s1', ({ rests_on }) => ({ rests_on: [...rests_on, 'cost:A'] })),
      now.change('s1', without('accuracy:A')),
    ]);
    expect(shown(report, 's1')?.citations.map(({ address }) => address)).toEqual(['cost:A']);
  });

  it('types into a sentence, then takes it out', async () => {
    const report = opened();
    const said = await doing(report, (now) => [
      now.change('s2', () => ({ text: 'No.' })),
      now.take('s2'),
      // What is gone is not changed any more.
      now.change('s2', () => ({ text: 'Or yes.' })),
    ]);
    expect(said).toEqual([true, true, true]);
    expect(shown(report, 's2')).toBeUndefined();
    expect(sent('PUT')).toHaveLength(1);
  });

  it('moves a sentence by two places, among its own kind', async () => {
    const report = opened();
    await doing(report, (now) => [now.move('s3', -1), now.move('s3', -1)]);
    expect(sent('POST').map(({ body }) => (body as { order: string[] }).order)).toEqual([
      ['s1', 's3', 's2'],
      ['s3', 's1', 's2'],
    ]);
  });

  it('takes two parts out: neither comes back', async () => {
    const report = opened();
    const lacking = (part: string) => (now: ReportSettings) => ({
      parts: (now.parts ?? []).filter((one) => one !== part),
    });
    await doing(report, (now) => [
      now.settle(lacking('question')),
      now.settle(lacking('line-up')),
      now.settle(() => ({ author: 'The clip bench' })),
    ]);
    expect(settings).toEqual({ parts: ['accuracy'], author: 'The clip bench' });
    expect(report.current.page.settings).toEqual(settings);
  });
});

describe('what others do with a report meanwhile', () => {
  it('to a sentence is shown, and nothing of it is overwritten unseen', async () => {
    const report = opened();
    sentences = [sentence('s1', { text: 'Theirs.', row_version: 2 })];
    expect(await doing(report, (now) => [now.change('s1', () => ({ text: 'Mine.' }))])).toEqual([
      false,
    ]);
    expect(report.current.save).toMatchObject({
      kind: 'refused',
      message: expect.stringContaining('what you typed is still in its field') as string,
    });
    expect(shown(report, 's1')?.text).toBe('Theirs.');
    expect(await doing(report, (now) => [now.change('s1', () => ({ text: 'Mine.' }))])).toEqual([
      true,
    ]);
    expect(sentences[0]?.text).toBe('Mine.');
  });

  it('to its settings stays beside what is changed here', async () => {
    const report = opened();
    settings = { ...settings, disclosure: 'Nobody paid.' };
    version = 12;
    await doing(report, (now) => [now.settle(() => ({ author: 'KM' }))]);
    expect(settings).toMatchObject({ author: 'KM', disclosure: 'Nobody paid.' });
  });

  it('again and again is told after the third time', async () => {
    const report = opened();
    api.answers['PATCH /studies/u'] = () => refused('The study was changed meanwhile.');
    expect(await doing(report, (now) => [now.settle(() => ({ author: 'KM' }))])).toEqual([false]);
    expect(sent('PATCH')).toHaveLength(3);
    expect(report.current.save).toMatchObject({ kind: 'refused' });
  });
});

describe('a new sentence', () => {
  it('has an id of its own', async () => {
    const report = opened();
    const written = { kind: 'plus' as const, contender_id: null, rests_on: [] };
    await doing(report, (now) => [
      now.write({ ...written, text: 'One.' }),
      now.write({ ...written, text: 'Two.' }),
    ]);
    const [one, two] = sent('PUT').map(({ body }) => body as Put);
    expect(one).toMatchObject({ kind: 'plus', text: 'One.', version: null });
    expect(one?.verdict_id).toMatch(/^s-[0-9a-f-]{36}$/);
    expect(two?.verdict_id).not.toBe(one?.verdict_id);
  });

  it('that is refused says why', async () => {
    const report = opened();
    api.answers[`PUT ${AT}/words`] = () =>
      json({ detail: 'A report has at most 500 sentences.' }, 422);
    const written = { kind: 'plus' as const, contender_id: null, rests_on: [], text: 'One.' };
    expect(await doing(report, (now) => [now.write(written)])).toEqual([false]);
    expect(report.current.save).toEqual({
      kind: 'refused',
      message: 'A report has at most 500 sentences.',
    });
  });
});

// @vitest-environment happy-dom
import { act, renderHook, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { emptyOutbox } from '../../../../tests/support/outbox';
import { json, toldApi } from '../../../../tests/support/told-api';
import { useSpecimen } from './use-specimen';

emptyOutbox();
const api = toldApi();

const reading = (reading_id: string, dimension_id: string, value_mm: number) => ({
  reading_id,
  dimension_id,
  value_mm,
  trial: 1,
  instrument_id: 'caliper',
  operator: 'TS',
});
const measured =
  (readings: readonly object[], unmeasured: readonly object[] = []) =>
  () =>
    json({ readings, unmeasured });

const AT = 'GET /studies/u/specimens/S-1/measurements';

beforeEach(() => {
  api.answers[AT] = measured([reading('before', 'x1', 20.01)]);
  api.answers['POST /studies/u/readings'] = () => json({}, 201);
  api.answers['POST /studies/u/rows/unmeasured'] = () => json({}, 201);
});

const opened = (specimen: string | null = 'S-1') =>
  renderHook(({ id }) => useSpecimen('u', id), { initialProps: { id: specimen } });

const valuesOf = (bench: ReturnType<typeof useSpecimen>, dimension: string) =>
  bench.cellOf(dimension).readings.map(({ value_mm }) => value_mm);

const sent = (method: string) => api.asked.filter((one) => one.method === method);

describe('the specimen at hand', () => {
  it('shows what was measured of it, and counts the dimensions that are done', async () => {
    api.answers[AT] = measured(
      [reading('a', 'x1', 20.01), reading('b', 'x1', 20.02)],
      [{ dimension_id: 'z1', reason: null, row_version: 1 }],
    );
    const { result } = opened();
    expect(result.current.measuredOf('S-1')).toBeNull();
    await waitFor(() => expect(valuesOf(result.current, 'x1')).toEqual([20.01, 20.02]));
    expect(result.current.cellOf('z1').isUnmeasurable).toBe(true);
    expect(result.current.measuredOf('S-1')).toBe(2);
    expect(result.current.cellOf('y1')).toEqual({ readings: [], isUnmeasurable: false });
  });

  it('shows an entry at once, and sends it as the next trial of its place', async () => {
    const { result } = opened();
    await waitFor(() => expect(valuesOf(result.current, 'x1')).toEqual([20.01]));
    act(() => result.current.keep('x1', 20.05, 'caliper'));
    expect(valuesOf(result.current, 'x1')).toEqual([20.01, 20.05]);
    await waitFor(() => expect(sent('POST')).toHaveLength(1));
    expect(sent('POST')[0]).toMatchObject({
      path: '/studies/u/readings',
      body: {
        specimen_id: 'S-1',
        dimension_id: 'x1',
        value_mm: 20.05,
        trial: 2,
        instrument_id: 'caliper',
      },
    });
    await waitFor(() => expect(result.current.pending.size).toBe(0));
  });

  it('tells which entries wait while the server is away', async () => {
    const { result } = opened();
    await waitFor(() => expect(valuesOf(result.current, 'x1')).toEqual([20.01]));
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('fetch failed')));
    act(() => result.current.keep('y1', 40.1, null));
    const [own] = result.current.cellOf('y1').readings;
    await waitFor(() => expect([...result.current.pending]).toEqual([own?.reading_id]));
  });

  it('takes back the last entry of the session, then the one before, and says where it was', async () => {
    api.answers['DELETE /studies/u/rows/unmeasured/S-1/z1'] = () => json(null, 204);
    const { result } = opened();
    await waitFor(() => expect(valuesOf(result.current, 'x1')).toEqual([20.01]));
    act(() => result.current.keep('x1', 20.05, null));
    const [, own] = result.current.cellOf('x1').readings;
    api.answers[`DELETE /studies/u/readings/${own?.reading_id}`] = () => json(null, 204);
    act(() => result.current.markUnmeasurable('z1'));
    expect(result.current.cellOf('z1').isUnmeasurable).toBe(true);
    let at: ReturnType<typeof result.current.undo> = null;
    act(() => {
      at = result.current.undo();
    });
    expect(at).toEqual({ specimenId: 'S-1', dimensionId: 'z1' });
    expect(result.current.cellOf('z1').isUnmeasurable).toBe(false);
    act(() => {
      at = result.current.undo();
    });
    expect(at).toEqual({ specimenId: 'S-1', dimensionId: 'x1' });
    // What was there before this session is not this session's to take back.
    expect(valuesOf(result.current, 'x1')).toEqual([20.01]);
    act(() => {
      at = result.current.undo();
    });
    expect(at).toBeNull();
    await waitFor(() =>
      expect(sent('DELETE').map(({ path }) => path)).toEqual([
        '/studies/u/rows/unmeasured/S-1/z1',
        `/studies/u/readings/${own?.reading_id}`,
      ]),
    );
  });

  it('takes entries where what was measured before cannot be asked for, and says so', async () => {
    api.answers[AT] = () => json({ detail: 'not now' }, 500);
    const { result } = opened();
    await waitFor(() => expect(result.current.isBlind).toBe(true));
    act(() => result.current.keep('x1', 20.05, null));
    expect(valuesOf(result.current, 'x1')).toEqual([20.05]);
    expect(result.current.measuredOf('S-1')).toBeNull();
  });

  it('shows what was measured before also where something is entered before that has come', async () => {
    const { result } = opened();
    act(() => result.current.keep('x1', 20.05, null));
    expect(result.current.measuredOf('S-1')).toBeNull();
    await waitFor(() => expect(valuesOf(result.current, 'x1').toSorted()).toEqual([20.01, 20.05]));
    expect(result.current.measuredOf('S-1')).toBe(1);
  });

  it('does not bring back what was entered and taken back before the answer came', async () => {
    const { result } = opened();
    act(() => result.current.keep('y1', 40.2, null));
    const [own] = result.current.cellOf('y1').readings;
    api.answers[AT] = measured([
      reading('before', 'x1', 20.01),
      reading(own?.reading_id ?? '', 'y1', 40.2),
    ]);
    act(() => void result.current.undo());
    await waitFor(() => expect(valuesOf(result.current, 'x1')).toEqual([20.01]));
    expect(valuesOf(result.current, 'y1')).toEqual([]);
  });

  it('is nothing while none is chosen', () => {
    const { result } = opened(null);
    act(() => result.current.keep('x1', 20.05, null));
    act(() => result.current.markUnmeasurable('x1'));
    expect(result.current.cellOf('x1')).toEqual({ readings: [], isUnmeasurable: false });
    expect(result.current.undo()).toBeNull();
    expect(api.asked).toEqual([]);
  });
});

// @vitest-environment happy-dom
import { act, renderHook, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { useRecord, type Values } from './use-record';

/** The record as the server has it; changes from an older version are answered with it. */
let held: Values & { row_version: number };
let isAway = false;
let sent: unknown[] = [];

beforeEach(() => {
  held = { name: 'Auklet', firmware: '1.0', nozzle_mm: 0.4, row_version: 1 };
  isAway = false;
  sent = [];
  const answer = (init: RequestInit): Response => {
    if (isAway) throw new TypeError('fetch failed');
    const { version, change } = JSON.parse(init.body as string) as {
      version: number;
      change: Values;
    };
    sent.push(change);
    if (version !== held.row_version) {
      return new Response(JSON.stringify({ detail: 'changed meanwhile', current: held }), {
        status: 409,
      });
    }
    if (change.nozzle_mm === -1) {
      const issues = [{ path: 'nozzle_mm', message: 'must be over 0' }];
      return new Response(JSON.stringify({ detail: 'nozzle_mm: must be over 0', issues }), {
        status: 400,
      });
    }
    held = { ...held, ...change, row_version: held.row_version + 1 };
    return new Response(JSON.stringify(held));
  };
  vi.stubGlobal('fetch', (_: string, init: RequestInit) => Promise.resolve(init).then(answer));
});

const opened = () => {
  const { row_version, ...values } = held;
  return renderHook(() => useRecord({ path: '/rows/machines/a' }, values, row_version)).result;
};

describe('a record in a form', () => {
  it('is saved field by field, one after another', async () => {
    const record = opened();
    act(() => {
      record.current.commit('name', 'Auklet 19');
      record.current.commit('firmware', '1.1');
    });
    expect(record.current.values).toMatchObject({ name: 'Auklet 19', firmware: '1.1' });
    await waitFor(() => expect(held).toMatchObject({ name: 'Auklet 19', firmware: '1.1' }));
    expect(sent).toEqual([{ name: 'Auklet 19' }, { firmware: '1.1' }]);
    await waitFor(() => expect(record.current.state.kind).toBe('saved'));
  });

  it('sends nothing where nothing is another', async () => {
    const record = opened();
    await act(() => Promise.resolve(record.current.commit('name', 'Auklet')));
    expect(sent).toEqual([]);
    expect(record.current.state.kind).toBe('idle');
  });

  it('lays its change over another person’s of other fields, and shows theirs', async () => {
    const record = opened();
    held = { ...held, firmware: '2.0', row_version: 2 };
    act(() => record.current.commit('name', 'Mine'));
    await waitFor(() => expect(held).toMatchObject({ name: 'Mine', firmware: '2.0' }));
    await waitFor(() =>
      expect(record.current).toMatchObject({
        values: { name: 'Mine', firmware: '2.0' },
        changedByOthers: ['firmware'],
        conflict: null,
      }),
    );
  });

  it('asks where both changed the same field, and keeps what is chosen', async () => {
    const record = opened();
    held = { ...held, name: 'Theirs', row_version: 2 };
    act(() => record.current.commit('name', 'Mine'));
    await waitFor(() =>
      expect(record.current.conflict).toEqual({ field: 'name', own: 'Mine', theirs: 'Theirs' }),
    );
    expect(held.name).toBe('Theirs');
    act(() => record.current.resolve('own'));
    await waitFor(() => expect(held.name).toBe('Mine'));
    expect(record.current.conflict).toBeNull();
  });

  it('takes theirs where that is chosen, and overwrites nothing', async () => {
    const record = opened();
    held = { ...held, name: 'Theirs', row_version: 2 };
    act(() => record.current.commit('name', 'Mine'));
    await waitFor(() => expect(record.current.conflict).not.toBeNull());
    act(() => record.current.resolve('theirs'));
    expect(record.current.values.name).toBe('Theirs');
    expect(held).toMatchObject({ name: 'Theirs', row_version: 2 });
  });

  it('does not ask where both changed it to the same', async () => {
    const record = opened();
    held = { ...held, name: 'Same', row_version: 2 };
    await act(() => Promise.resolve(record.current.commit('name', 'Same')));
    await waitFor(() => expect(record.current.values.name).toBe('Same'));
    expect(record.current.conflict).toBeNull();
  });

  it('says what is wrong at its field, and forgets it once it is right', async () => {
    const record = opened();
    act(() => record.current.commit('nozzle_mm', -1));
    await waitFor(() => expect(record.current.issues).toEqual({ nozzle_mm: 'must be over 0' }));
    expect(record.current.state.kind).toBe('refused');
    act(() => record.current.commit('nozzle_mm', 0.6));
    await waitFor(() => expect(record.current.issues).toEqual({}));
    expect(held.nozzle_mm).toBe(0.6);
  });

  it('waits for a server that is away, and then saves', async () => {
    vi.useFakeTimers();
    try {
      const record = opened();
      isAway = true;
      await act(async () => {
        record.current.commit('name', 'Later');
        await vi.advanceTimersByTimeAsync(0);
      });
      expect(record.current.state.kind).toBe('waiting');
      isAway = false;
      await act(async () => vi.advanceTimersByTimeAsync(3000));
      expect(held.name).toBe('Later');
      expect(record.current.state.kind).toBe('saved');
    } finally {
      vi.useRealTimers();
    }
  });
});

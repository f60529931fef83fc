import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { App } from '../server/app';
import { keepHouse } from './house';

/** An application whose database is away. */
const homeless = () => {
  const said: unknown[] = [];
  const log = { error: (error: unknown) => said.push(error) };
  return { said, app: { db: {}, log } as unknown as App };
};

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('what time has made due', () => {
  it('is looked for at once and every minute, whatever of it goes wrong', async () => {
    const { app, said } = homeless();
    let looked = 0;
    const takeUp = () => {
      looked += 1;
      return looked === 2 ? Promise.reject(new Error('away')) : Promise.resolve();
    };
    keepHouse(app, takeUp);
    await vi.advanceTimersByTimeAsync(0);
    expect(looked).toBe(1);
    // The bin, what was deleted, kept answers and panels could not be asked after: the rest was done all the same.
    expect(said).toHaveLength(4);
    await vi.advanceTimersByTimeAsync(59_000);
    expect(looked).toBe(1);
    await vi.advanceTimersByTimeAsync(1000);
    expect(looked).toBe(2);
    await vi.advanceTimersByTimeAsync(120_000);
    expect(looked).toBe(4);
  });
});

import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { App } from '../app';
import { problemOf } from './problem';

const error = vi.fn();

const app = { log: { error } } as unknown as App;

beforeEach(() => void error.mockClear());

describe('the answer to an error', () => {
  it('says that the disk is full, and what to do', async () => {
    const full = Object.assign(new Error('write'), { code: 'ENOSPC' });
    const answer = problemOf(app, full);
    expect(answer.status).toBe(507);
    expect(answer.headers.get('content-type')).toBe('application/problem+json');
    const { detail } = (await answer.json()) as { detail: string };
    expect(detail).toMatch(/^The disk is full\. Nothing was changed\. Free some space/);
    expect(error).toHaveBeenCalledWith(full, 'the disk is full');
  });

  it('that nobody expected tells nothing of it, and is in the log', async () => {
    const odd = new Error('secret /home/km/x');
    const answer = problemOf(app, odd);
    expect(answer.status).toBe(500);
    expect(await answer.text()).not.toContain('secret');
    expect(error).toHaveBeenCalledWith(odd, 'request failed');
  });
});

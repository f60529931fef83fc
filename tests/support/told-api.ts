import { beforeEach, vi } from 'vitest';

/** A request that a component made of the API. */
export interface Asked {
  method: string;
  path: string;
  body: unknown;
}

/** An answer of the API as JSON. */
export const json = (content: unknown, status = 200): Response =>
  new Response(status === 204 ? null : JSON.stringify(content), { status });

/**
 * An API that answers what a test tells it to, by method and path (`PATCH /things/u`), and remembers what
 * it was asked. What it was not told is not found.
 */
export function toldApi(): { asked: Asked[]; answers: Record<string, () => Response> } {
  const told = { asked: [] as Asked[], answers: {} as Record<string, () => Response> };
  beforeEach(() => {
    localStorage.clear();
    told.asked = [];
    told.answers = {};
    vi.stubGlobal('fetch', (address: string, init: RequestInit) => {
      const method = init.method ?? 'GET';
      const path = address.replace('/api/v1', '');
      const body = typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined;
      told.asked.push({ method, path, body });
      const answer = told.answers[`${method} ${path}`];
      return Promise.resolve(answer ? answer() : json({ detail: 'nothing here' }, 404));
    });
  });
  return told;
}

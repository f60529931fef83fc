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

/** What is answered to a request, at once or when a test wants it. */
type Answer = (body: unknown) => Response | Promise<Response>;

/** A row that the API keeps, with its version: what is changed from an older one is refused, with how it stands. */
export function keptRow<Row extends object>(
  first: Row,
): {
  row: () => Row & { row_version: number };
  change: (change: Partial<Row>) => void;
  patch: Answer;
} {
  let row = { ...first, row_version: 1 };
  const change = (more: Partial<Row>) =>
    (row = { ...row, ...more, row_version: row.row_version + 1 });
  return {
    row: () => row,
    change,
    patch: async (body) => {
      // An answer takes its time.
      await new Promise((resolve) => setTimeout(resolve, 5));
      const { version, change: asked } = body as { version: number; change: Partial<Row> };
      if (version !== row.row_version)
        return json({ detail: 'It was changed by someone else.', current: row }, 409);
      change(asked);
      return json(row);
    },
  };
}

/**
 * An API that answers what a test tells it to, by method and path (`PATCH /things/u`), and remembers what
 * it was asked. What it was not told is not found.
 */
export function toldApi(): { asked: Asked[]; answers: Record<string, Answer> } {
  const told = { asked: [] as Asked[], answers: {} as Record<string, Answer> };
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
      return Promise.resolve(answer ? answer(body) : json({ detail: 'nothing here' }, 404));
    });
  });
  return told;
}

import { readOperator } from './operator';

/** The server's refusal, as problem details. */
export class ApiError extends Error {
  override name = 'ApiError';
  constructor(
    readonly status: number,
    message: string,
    /** The record as it stands, where the change was made from an older one. */
    readonly current: unknown = undefined,
    readonly issues: readonly { path: string; message: string }[] = [],
  ) {
    super(message);
  }
}

/** The server could not be reached at all. */
export class UnreachableError extends Error {
  override name = 'UnreachableError';
}

interface Problem {
  detail?: string;
  current?: unknown;
  issues?: { path: string; message: string }[];
}

/**
 * Calls the API with JSON and gives its JSON.
 *
 * @throws ApiError, UnreachableError
 */
export async function callApi<Answer>(
  method: 'GET' | 'POST' | 'PATCH' | 'DELETE',
  path: string,
  content?: unknown,
): Promise<Answer> {
  const operator = readOperator();
  const response = await fetch(`/api/v1${path}`, {
    method,
    headers: {
      ...(content !== undefined && { 'content-type': 'application/json' }),
      ...(operator && { 'x-operator': encodeURIComponent(operator) }),
    },
    ...(content !== undefined && { body: JSON.stringify(content) }),
  }).catch(() => {
    throw new UnreachableError('The server does not answer.');
  });
  if (response.status === 204) return undefined as Answer;
  const answer = (await response.json().catch(() => null)) as unknown;
  if (response.ok) return answer as Answer;
  const problem = (answer ?? {}) as Problem;
  throw new ApiError(
    response.status,
    problem.detail ?? 'The server could not do this.',
    problem.current,
    problem.issues,
  );
}

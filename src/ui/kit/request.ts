import { v7 as uuid } from 'uuid';
import { readOperator } from '../lib/operator';

/** The id of this tab of the browser, the same on all its pages. */
function tabId(): string {
  const fresh = uuid();
  try {
    const known = sessionStorage.getItem('vergleich:tab');
    if (known !== null) return known;
    sessionStorage.setItem('vergleich:tab', fresh);
  } catch {
    // In a browser that stores nothing each page has its own id.
  }
  return fresh;
}

/** This tab as the server knows it: it is not told of what it did itself. */
export const TAB = tabId();

/** The server's refusal, as problem details. */
export class ApiError extends Error {
  override name = 'ApiError';
  constructor(
    readonly status: number,
    message: string,
    /** The record as it stands, where the change was made from an older one. */
    readonly current: unknown = undefined,
    readonly issues: readonly { path: string; message: string }[] = [],
    /** All that the server said. */
    readonly answer: unknown = null,
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

/** What to tell a person of something that did not work. */
export function failureText(error: unknown, otherwise = 'It could not be done.'): string {
  return error instanceof Error ? error.message : otherwise;
}

type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

interface RequestOptions {
  /** The request's content: JSON, or bytes as they are. */
  body?: BodyInit;
  contentType?: string;
  headers?: Readonly<Record<string, string>>;
}

/** What a browser still sends of a page that is gone, of all that is on its way, bytes. */
const LAST_BYTES = 60_000;
let bytesUnderWay = 0;

const isText = (body: BodyInit | undefined): boolean =>
  body === undefined || typeof body === 'string';

/** Who is at the bench, and at which page, as headers of each request. */
export function operatorHeader(): Record<string, string> {
  const operator = readOperator();
  return { 'x-tab': TAB, ...(operator && { 'x-operator': encodeURIComponent(operator) }) };
}

/** The error that an answer of this status and content stands for. */
export function refusalOf(status: number, answer: unknown): ApiError {
  const problem = (answer ?? {}) as Problem;
  return new ApiError(
    status,
    problem.detail ?? 'The server could not do this.',
    problem.current,
    problem.issues,
    answer,
  );
}

/** What the window hears of when this page has changed something on the server. */
export const WRITTEN_EVENT = 'vergleich:written';

/** How often this page has changed something on the server so far. */
let changes = 0;

/** How many changes are on their way to the server, or wait for their turn to be. */
let underWay = 0;
export const writesUnderWay = (): number => underWay;

/** Does what changes something in several steps: it is under way until its last step is done. */
export async function underWayUntil<Result>(work: () => Promise<Result>): Promise<Result> {
  underWay += 1;
  try {
    return await work();
  } finally {
    underWay -= 1;
  }
}

/**
 * What the server says, asked again where this page changed something meanwhile: an answer that was on its way
 * then does not put back what was there before.
 */
export async function asItStands<Answer>(ask: () => Promise<Answer>): Promise<Answer> {
  for (;;) {
    const before = changes;
    const answer = await ask();
    if (changes === before) return answer;
  }
}

async function request<Answer>(
  method: Method,
  path: string,
  { body, contentType, headers }: RequestOptions,
): Promise<Answer> {
  const isWrite = method !== 'GET';
  if (isWrite) underWay += 1;
  const size = typeof body === 'string' ? new Blob([body]).size : 0;
  // The browser still sends a change after its page has closed.
  const outlives = isWrite && isText(body) && bytesUnderWay + size <= LAST_BYTES;
  if (outlives) bytesUnderWay += size;
  const response = await fetch(`/api/v1${path}`, {
    method,
    headers: {
      ...(contentType !== undefined && { 'content-type': contentType }),
      ...operatorHeader(),
      ...headers,
    },
    ...(body !== undefined && { body }),
    keepalive: outlives,
  })
    .catch(() => {
      throw new UnreachableError('The server does not answer.');
    })
    .finally(() => {
      if (isWrite) underWay -= 1;
      if (outlives) bytesUnderWay -= size;
    });
  if (isWrite) {
    changes += 1;
    if (response.ok) globalThis.dispatchEvent?.(new Event(WRITTEN_EVENT));
  }
  if (response.status === 204) return undefined as Answer;
  const answer: unknown = await response.json().catch(() => null);
  if (response.ok) return answer as Answer;
  throw refusalOf(response.status, answer);
}

/** What this page is adding at this moment, by its address and content. */
const adding = new Map<string, Promise<unknown>>();

/** Asks for something to be added, unless the very same is being added: a hand that comes down twice adds one. */
function addOnce<Answer>(key: string, ask: () => Promise<Answer>): Promise<Answer> {
  const known = adding.get(key);
  if (known) return known as Promise<Answer>;
  const own = ask().finally(() => adding.delete(key));
  adding.set(key, own);
  return own;
}

/**
 * Calls the API with JSON and gives its JSON.
 *
 * @throws ApiError, UnreachableError
 */
export const callApi = <Answer>(
  method: Method,
  path: string,
  content?: unknown,
): Promise<Answer> => {
  if (content === undefined) return request<Answer>(method, path, {});
  const body = JSON.stringify(content);
  const ask = () => request<Answer>(method, path, { body, contentType: 'application/json' });
  return method === 'POST' ? addOnce(`${path} ${body}`, ask) : ask();
};

/**
 * Sends bytes to the API as they are and gives its JSON.
 *
 * @throws ApiError, UnreachableError
 */
export const sendBytes = <Answer>(
  method: 'POST' | 'PUT',
  path: string,
  body: BodyInit,
  headers?: Readonly<Record<string, string>>,
): Promise<Answer> =>
  request<Answer>(method, path, {
    body,
    contentType: 'application/octet-stream',
    ...(headers && { headers }),
  });

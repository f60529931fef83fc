import { readFileSync } from 'node:fs';
import { runInNewContext } from 'node:vm';
import { beforeEach, describe, expect, it } from 'vitest';

const SOURCE = readFileSync('public/offline.js', 'utf8');
const HOME = 'http://127.0.0.1:4680';
const MEASURE = `${HOME}/studies/s/measure?specimen=K7-004`;

type Listener = (event: Record<string, unknown>) => void;

/** What a browser keeps, by the names of its caches. */
let stores: Map<string, Map<string, Response>>;
/** What the server answers to an address; nothing while it is away. */
let answers: Map<string, () => Response>;

const addressOf = (asked: string | Request): string =>
  typeof asked === 'string' ? asked : asked.url;

function cacheOf(name: string) {
  const store = stores.get(name) ?? new Map<string, Response>();
  stores.set(name, store);
  return {
    put: (asked: string | Request, answer: Response) =>
      Promise.resolve(void store.set(addressOf(asked), answer)),
    match: (asked: string | Request) => Promise.resolve(store.get(addressOf(asked))?.clone()),
    keys: () => Promise.resolve([...store.keys()].map((url) => ({ url }))),
    delete: ({ url }: { url: string }) => Promise.resolve(store.delete(url)),
  };
}

/** The worker of a build, as a browser runs it. */
function worker(build: string) {
  const listeners = new Map<string, Listener>();
  const told: string[] = [];
  const self = {
    location: new URL(`${HOME}/offline.js?build=${build}`),
    addEventListener: (name: string, listener: Listener) => listeners.set(name, listener),
    skipWaiting: () => Promise.resolve(),
    clients: {
      claim: () => Promise.resolve(),
      matchAll: () =>
        Promise.resolve([{ url: MEASURE, postMessage: (text: string) => told.push(text) }]),
    },
  };
  const caches = {
    open: (name: string) => Promise.resolve(cacheOf(name)),
    keys: () => Promise.resolve([...stores.keys()]),
    delete: (name: string) => Promise.resolve(stores.delete(name)),
  };
  const fetch = (asked: URL | { url: string }) => {
    const answer = answers.get('url' in asked ? asked.url : asked.href);
    return answer ? Promise.resolve(answer()) : Promise.reject(new TypeError('Failed to fetch'));
  };
  runInNewContext(SOURCE, { self, caches, fetch, URL, Request });
  /** Tells the worker of something, and waits until it has done what follows. */
  const tell = async (name: string, event: Record<string, unknown>): Promise<Response | null> => {
    const waited: Promise<unknown>[] = [];
    let answer: Promise<Response> | null = null;
    listeners.get(name)?.({
      ...event,
      waitUntil: (work: Promise<unknown>) => waited.push(work),
      respondWith: (given: Promise<Response>) => (answer = given),
    });
    const given = answer ? await (answer as Promise<Response>) : null;
    await Promise.all(waited);
    return given;
  };
  const asked = (url: string, mode: string, method = 'GET') => ({ request: { url, mode, method } });
  return {
    told,
    tell,
    open: (url: string) => tell('fetch', asked(url, 'navigate')),
    load: (url: string) => tell('fetch', { request: Object.assign(new Request(url), {}) }),
    write: (url: string) => tell('fetch', asked(url, 'cors', 'POST')),
  };
}

beforeEach(() => {
  stores = new Map();
  answers = new Map();
});
const page = (text: string) => () => new Response(text);

describe('what the browser keeps for when the server is away', () => {
  it('is a page of the bench as it was last seen, under that very address', async () => {
    const { open } = worker('b1');
    answers.set(MEASURE, page('first'));
    await open(MEASURE);
    answers.set(MEASURE, page('second'));
    expect(await (await open(MEASURE))?.text()).toBe('second');
    answers.clear();
    expect(await (await open(MEASURE))?.text()).toBe('second');
    // Another specimen's page is not this one's.
    await expect(open(MEASURE.replace('K7-004', 'K7-003'))).rejects.toThrow('Failed to fetch');
  });

  it.each(['runs', 'inspect/side-by-side', 'machines/gannet', 'measure/gauge'])(
    'is %s too',
    async (path) => {
      const { open } = worker('b1');
      const address = `${HOME}/studies/s/${path}`;
      answers.set(address, page('here'));
      await open(address);
      answers.clear();
      expect(await (await open(address))?.text()).toBe('here');
    },
  );

  it.each([`${HOME}/people`, `${HOME}/studies/s/results/glance`])(
    'is nothing of %s',
    async (address) => {
      const { open } = worker('b1');
      answers.set(address, page('here'));
      await open(address);
      answers.clear();
      await expect(open(address)).rejects.toThrow();
    },
  );

  it('is nothing that is written or asked of the API, or of elsewhere', async () => {
    const { write, load } = worker('b1');
    expect(await write(MEASURE)).toBeNull();
    expect(await load(`${HOME}/api/v1/studies`)).toBeNull();
    expect(await load('http://elsewhere.example/_astro/a.js')).toBeNull();
  });

  it('is let go of where a page leads to the sign-in', async () => {
    const { open } = worker('b1');
    answers.set(MEASURE, page('mine'));
    await open(MEASURE);
    const redirect = { type: 'opaqueredirect', ok: false } as Response;
    answers.set(MEASURE, () => redirect);
    expect(await open(MEASURE)).toBe(redirect);
    answers.clear();
    await expect(open(MEASURE)).rejects.toThrow();
  });

  it('begins anew with each build, and asks open pages what they are made of', async () => {
    const before = worker('b1');
    answers.set(MEASURE, page('old'));
    await before.open(MEASURE);
    stores.set('of somebody else', new Map());
    const { tell, told, open, load } = worker('b2');
    await tell('activate', {});
    expect([...stores.keys()]).toEqual(['of somebody else']);
    expect(told).toEqual(['keep']);
    const script = `${HOME}/_astro/page.abc123.js`;
    answers.set(script, page('code'));
    answers.set(MEASURE, page('new'));
    await tell('message', {
      data: { addresses: [MEASURE, script, `${HOME}/people`, 'http://elsewhere.example/x'] },
    });
    answers.clear();
    expect(await (await open(MEASURE))?.text()).toBe('new');
    expect(await (await load(script))?.text()).toBe('code');
  });

  it('is of sixty pages at most, the latest of them', async () => {
    const { open } = worker('b1');
    const address = (at: number) => `${HOME}/studies/s/measure?specimen=${at}`;
    for (let at = 0; at < 63; at += 1) {
      answers.set(address(at), page(String(at)));
      await open(address(at));
    }
    answers.clear();
    await expect(open(address(2))).rejects.toThrow();
    expect(await (await open(address(3)))?.text()).toBe('3');
  });
});

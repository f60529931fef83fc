import pLimit from 'p-limit';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { isOwnHost } from '../network/origin';
import { SharedQuestion } from './shared-question';

const pack = promisify<string, Buffer>(gzip);
const unpack = promisify<Buffer, Buffer>(gunzip);

/** A page as it was shown: its text, packed, with its headers. */
interface Shown {
  packed: Buffer;
  isStale: boolean;
  status: number;
  headers: [string, string][];
}

/** A page that is being rendered for somebody, and others wait for. */
interface Rendering {
  /** The revision of the study as it begins. */
  revision: string;
  shown: Promise<Shown>;
  end: (shown: Shown) => void;
  fail: (error: unknown) => void;
}

/** Pages of results hang on the study alone: as long as it is the same, so are they. */
const RESULTS_PAGE = /^\/studies\/([0-9a-f-]{36})\/results(?:[/?]|$)/i;
/** A page that says so is of results that are being made anew: the next one will be another. */
const IS_STALE = 'data-stale-results';

const MOST_KEPT = 60;
const MOST_BYTES = 1_000_000;
/** So many pages are rendered at a time: what somebody writes comes through between them. */
const AT_ONCE = 4;
const MOST_STUDIES = 200;
/** So often whoever renders a page may go away before others render it by themselves. */
const MOST_TRIES = 3;

/** By which name a page goes on from the front door to where it is rendered. */
const PAGE_KEY = 'x-vergleich-page';

/** Pages of results as they were shown, and those that are being rendered. */
export class ShownPages {
  readonly #revisionOf: (study: string) => Promise<string | null>;
  readonly #kept = new Map<string, Shown & { revision: string }>();
  /** By address: what is rendered now, and what is to be rendered after it. */
  readonly #rendering = new Map<string, { now: Rendering; next: Rendering | null }>();
  readonly #questions = new Map<string, SharedQuestion<string | null>>();
  readonly #turn = pLimit(AT_ONCE);

  /** @param revisionOf the revision of a study as it stands; null where there is none */
  constructor(revisionOf: (study: string) => Promise<string | null>) {
    this.#revisionOf = revisionOf;
  }

  /**
   * Answers a request for a page of results as it was shown before, where nothing has changed since, or
   * together with those who ask for the same at the same time.
   *
   * @param viewerOf who asks, as far as a page looks different for them; null where they may not see it
   * @returns false where it has to be rendered: the request goes on then, and its page is kept
   */
  async showAgain(
    req: IncomingMessage,
    res: ServerResponse,
    viewerOf: (req: IncomingMessage) => Promise<string | null>,
  ): Promise<boolean> {
    delete req.headers[PAGE_KEY];
    const study = RESULTS_PAGE.exec(req.url ?? '')?.[1];
    if (req.method !== 'GET' || study === undefined || !isOwnHost(req.headers.host ?? '')) {
      return false;
    }
    const viewer = await viewerOf(req);
    if (viewer === null) return false;
    const address = `${viewer}\n${req.url ?? ''}`;
    for (let attempt = 0; attempt < MOST_TRIES; attempt += 1) {
      const revision = await this.#revisionNow(study).catch(() => null);
      if (revision === null) return false;
      const shown = await this.#find(address, revision, req, res);
      if (shown === 'render') return false;
      if (!shown) continue;
      await send(req, res, shown);
      return true;
    }
    return false;
  }

  /**
   * The page of an address at a revision, or a later one.
   *
   * @returns `render` where the request is to render it; null where whoever rendered it went away
   */
  async #find(
    address: string,
    revision: string,
    req: IncomingMessage,
    res: ServerResponse,
  ): Promise<Shown | 'render' | null> {
    const kept = this.#kept.get(address);
    if (kept?.revision === revision) return kept;
    const known = this.#rendering.get(address);
    if (known?.now.revision === revision) return known.now.shown.catch(() => null);
    if (known?.next) return known.next.shown.catch(() => null);
    const own = begin(revision);
    if (known) {
      // What is rendered now may lack what its asker has just changed: this one comes after it.
      known.next = own;
      await known.now.shown.catch(() => null);
    }
    this.#rendering.set(address, { now: own, next: null });
    req.headers[PAGE_KEY] = encodeURIComponent(address);
    // Whatever becomes of the request, nobody waits for it for ever.
    res.once('close', () => this.#end(address, own, new Error('the page was not rendered')));
    return 'render';
  }

  /** Renders a page when its turn comes; one that others may ask for is kept. */
  async render(headers: Headers, render: () => Promise<Response>): Promise<Response> {
    const name = headers.get(PAGE_KEY);
    const response = await this.#turn(render);
    const address = name === null ? '' : decodeURIComponent(name);
    const own = this.#rendering.get(address)?.now;
    if (!own) return response;
    const body = await response.text();
    const shown: Shown = {
      packed: await pack(body),
      isStale: body.includes(IS_STALE),
      status: response.status,
      headers: [...response.headers],
    };
    if (shown.status === 200 && !shown.isStale && shown.packed.length <= MOST_BYTES) {
      remember(this.#kept, address, { ...shown, revision: own.revision }, MOST_KEPT);
    }
    this.#end(address, own, shown);
    return new Response(body, { status: response.status, headers: response.headers });
  }

  /** The revision of a study as it is when this is asked, or later. */
  #revisionNow(study: string): Promise<string | null> {
    const known = this.#questions.get(study);
    if (known) return known.ask();
    const question = new SharedQuestion(() => this.#revisionOf(study));
    remember(this.#questions, study, question, MOST_STUDIES);
    return question.ask();
  }

  #end(address: string, own: Rendering, outcome: Shown | Error): void {
    const known = this.#rendering.get(address);
    if (known?.now === own && !known.next) this.#rendering.delete(address);
    if (outcome instanceof Error) own.fail(outcome);
    else own.end(outcome);
  }
}

/** Puts an entry into a map that holds so many at most; the oldest goes. */
function remember<Value>(map: Map<string, Value>, key: string, value: Value, limit: number): void {
  map.set(key, value);
  const [oldest] = map.keys();
  if (map.size > limit && oldest !== undefined) map.delete(oldest);
}

function begin(revision: string): Rendering {
  let [end, fail]: [Rendering['end'], Rendering['fail']] = [() => undefined, () => undefined];
  const shown = new Promise<Shown>((resolve, reject) => {
    end = resolve;
    fail = reject;
  });
  shown.catch(() => undefined);
  return { revision, shown, end, fail };
}

async function send(req: IncomingMessage, res: ServerResponse, shown: Shown): Promise<void> {
  const isPacked = /\bgzip\b/.test(String(req.headers['accept-encoding'] ?? ''));
  const body = isPacked ? shown.packed : await unpack(shown.packed);
  for (const [name, value] of shown.headers) res.setHeader(name, value);
  if (isPacked) res.setHeader('content-encoding', 'gzip');
  res.setHeader('vary', 'accept-encoding');
  res.setHeader('content-length', body.length);
  res.statusCode = shown.status;
  res.end(body);
}

import type { IncomingMessage, ServerResponse } from 'node:http';
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';
import * as z from 'zod';
import { may } from '../../core/model/access';
import { countJobs, countKeptResults } from '../../data';
import { whoAsks } from '../access/who';
import type { App } from '../app';
import { isLoopback, isOwnHost } from '../network/origin';
import { problem } from '../http/problem';

/** What Sequelize keeps of its pool, and does not tell of in its types. */
const poolSchema = z.object({
  pool: z.object({ using: z.number(), available: z.number(), waiting: z.number() }),
});

/** What this process counts. */
interface Metrics {
  registry: Registry;
  requests: Histogram<'kind' | 'method' | 'status'>;
  messages: Counter<'outcome'>;
}

function makeMetrics(app: App): Metrics {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry });
  const registers = [registry];
  const gauge = (
    name: string,
    help: string,
    labelNames: string[],
    collect: (own: Gauge) => unknown,
  ) =>
    new Gauge({
      name,
      help,
      labelNames,
      registers,
      async collect() {
        await collect(this);
      },
    });
  gauge(
    'vergleich_jobs',
    'Jobs by queue and state, of all processes',
    ['queue', 'state'],
    async (own) => {
      own.reset();
      for (const { queue, state, n } of await countJobs(app.db)) own.set({ queue, state }, n);
    },
  );
  gauge(
    'vergleich_results_kept',
    'Stored sections of results, of all processes',
    [],
    async (own) => {
      own.set(await countKeptResults(app.db));
    },
  );
  gauge('vergleich_database_connections', 'Connections of this process’ pool', ['state'], (own) => {
    const { using, available, waiting } = poolSchema.parse(app.db.sequelize.connectionManager).pool;
    own.set({ state: 'using' }, using);
    own.set({ state: 'available' }, available);
    own.set({ state: 'waiting' }, waiting);
  });
  gauge('vergleich_listeners', 'Pages that this process notifies of changes', [], (own) => {
    own.set(app.broadcaster.size);
  });
  gauge('vergleich_link_listening', 'Whether this process hears the bench link', [], (own) => {
    own.set(app.link?.isListening() === true ? 1 : 0);
  });
  return {
    registry,
    requests: new Histogram({
      name: 'vergleich_request_seconds',
      help: 'Requests by kind, method and status',
      labelNames: ['kind', 'method', 'status'] as const,
      registers,
      buckets: [0.01, 0.03, 0.1, 0.3, 1, 3, 10],
    }),
    messages: new Counter({
      name: 'vergleich_link_messages_total',
      help: 'Messages of the bench link by what became of them',
      labelNames: ['outcome'] as const,
      registers,
    }),
  };
}

const counted = new WeakMap<App, Metrics>();

function metrics(app: App): Metrics {
  const known = counted.get(app);
  if (known) return known;
  const made = makeMetrics(app);
  counted.set(app, made);
  return made;
}

/** Counts a message of the bench link. */
export const countMessage = (app: App, outcome: string): void =>
  metrics(app).messages.inc({ outcome });

const kindOf = (path: string): string => {
  if (path.startsWith('/api/')) return 'api';
  return /^\/(?:_astro|fonts)\/|\.\w{2,5}$/.test(path) ? 'file' : 'page';
};

/** Counts a request when it is answered; streams that are held open are none. */
export function countRequest(
  app: App,
  method: string,
  path: string,
  status: number,
  ms: number,
): void {
  if (path.endsWith('/live')) return;
  const labels = { kind: kindOf(path), method, status: String(status) };
  metrics(app).requests.observe(labels, ms / 1000);
}

/**
 * Answers what a program asks that watches over this process, in Prometheus' text format: on this computer, or
 * with a key. Returns whether that was asked.
 *
 * @param from the address that the request comes from
 */
export function tellMetrics(
  app: App,
  req: IncomingMessage,
  res: ServerResponse,
  from: string,
): boolean {
  if ((req.url ?? '').split('?')[0] !== '/metrics' || req.method !== 'GET') return false;
  const answer = async (): Promise<Response> => {
    if (!isOwnHost(req.headers.host ?? '')) return problem(403, 'Only by a name of its own.');
    if (!isLoopback(from) && from !== '::1') {
      const { authorization } = req.headers;
      const actor = authorization ? await whoAsks(app, new Headers({ authorization })) : null;
      if (actor?.kind !== 'key') return problem(401, 'Send a key.');
      if (!may(actor.role, 'see')) return problem(403, 'This key may not see it.');
    }
    const { registry } = metrics(app);
    return new Response(await registry.metrics(), {
      headers: { 'content-type': registry.contentType, 'cache-control': 'no-store' },
    });
  };
  answer()
    .catch(() => problem(503, 'The database does not answer.'))
    .then(async (response) => {
      response.headers.forEach((value, name) => res.setHeader(name, value));
      res.statusCode = response.status;
      res.end(await response.text());
    })
    .catch(() => res.destroy());
  return true;
}

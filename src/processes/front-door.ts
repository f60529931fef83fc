import { randomUUID } from 'node:crypto';
import {
  createServer,
  type IncomingMessage,
  type RequestListener,
  type Server,
  type ServerResponse,
} from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import compression from 'compression';
import { doors } from '../server/network/doors';
import { viewerOf } from '../server/access/front';
import { FROM_HEADER } from '../server/access/who';
import type { App } from '../server/app';
import { refuseEarly, refuseUnreadable } from '../server/http/gate';
import { tellHealth } from '../server/watching/health';
import { countRequest, tellMetrics } from '../server/watching/metrics';
import { withinRequest, type RequestScope } from '../server/http/scope';
import type { Certificate } from './certificate';

const UPLOAD_TIMEOUT_MS = 60 * 60 * 1000;
const IDLE_TIMEOUT_MS = 75_000;
/** The longest that an address can be, with room for a zone. */
const MOST_OF_ADDRESS = 64;

const HEADERS = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy': 'geolocation=(), microphone=()',
};

export type Handler = (req: IncomingMessage, res: ServerResponse) => void;

/** From where a request comes: a proxy's word for it only where one was said to stand there. */
export function addressOf(req: Pick<IncomingMessage, 'headers' | 'socket'>): string {
  const socket = (req.socket.remoteAddress ?? '').replace(/^::ffff:/, '');
  const forwarded = String(req.headers['x-forwarded-for'] ?? '');
  const told = forwarded.split(',').at(-1)?.trim().slice(0, MOST_OF_ADDRESS);
  return doors().isProxied && told ? told : socket;
}

/** What answers every request, once the application's handler is there. */
export function frontDoor(app: App, handler: () => Handler | null): RequestListener {
  const compress = compression();
  return (req, res) => {
    for (const [name, value] of Object.entries(HEADERS)) res.setHeader(name, value);
    if (doors().isSecure && doors().fingerprint === null) {
      res.setHeader('strict-transport-security', 'max-age=31536000');
    }
    const from = addressOf(req);
    const scope: RequestScope = { id: randomUUID(), actor: null, app };
    res.setHeader('x-request-id', scope.id);
    noteWhenAnswered(app, req, res, scope);
    if (refuseEarly(req, res) || tellHealth(app, req, res) || tellMetrics(app, req, res, from))
      return;
    req.headers[FROM_HEADER] = from;
    withinRequest(scope, () => {
      const answer = (): void => {
        Reflect.apply(compress, undefined, [req, res, () => handler()?.(req, res)]);
      };
      app.pages
        .showAgain(req, res, (asked) => viewerOf(app, asked))
        .then((isShown) => isShown || answer(), answer);
    });
  };
}

/** Addresses that let somebody in: they are written down nowhere. */
const SECRET = /^(\/(?:enter|r|judge|api\/v1\/judging)\/)[^/]+/;

/** Counts a request when it is answered, and writes it down where that is wanted (`LOG_LEVEL=info`). */
function noteWhenAnswered(
  app: App,
  req: IncomingMessage,
  res: ServerResponse,
  scope: RequestScope,
): void {
  const began = performance.now();
  const method = req.method ?? '';
  const [path = ''] = (req.url ?? '').split('?');
  res.once('close', () => {
    const ms = Math.round(performance.now() - began);
    countRequest(app, method, path, res.statusCode, ms);
    const said = { request: scope.id, actor: scope.actor, method, status: res.statusCode, ms };
    app.log.info({ ...said, path: path.replace(SECRET, '$1…').slice(0, 200) }, 'answered');
  });
}

/** A server of this process, with its limits. */
export function makeServer(listener: RequestListener, certificate: Certificate | null): Server {
  const server = certificate
    ? createSecureServer({ key: certificate.key, cert: certificate.cert }, listener)
    : createServer(listener);
  server.requestTimeout = UPLOAD_TIMEOUT_MS;
  // Longer than clients and proxies keep an idle connection: who sends on one finds it open.
  server.keepAliveTimeout = IDLE_TIMEOUT_MS;
  server.on('clientError', refuseUnreadable);
  return server;
}

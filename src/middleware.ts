import { defineMiddleware } from 'astro:middleware';
import { may } from './core/model/access';
import { workAs, type Actor } from './server/http/actor';
import { wantedBy } from './server/access/rules';
import { tabOf, whoAsks } from './server/access/who';

import { isOwnRequest } from './server/network/origin';
import { presentRequest } from './server/http/scope';
import { problem, problemOf } from './server/http/problem';

/**
 * The one way in: turns away what other sites' pages send, asks who it is where that must be said, and lets
 * through what they may do. What programs ask is always answered for programs.
 */
export const onRequest = defineMiddleware(async (context, next) => {
  const { request, routePattern, params, url } = context;
  const scope = presentRequest();
  if (!scope) throw new Error('requests come through the front door');
  const { app } = scope;
  context.locals.app = app;
  if (!isOwnRequest(request)) return problem(403, 'Only pages of this program may do this.');
  const isApi = /^\/+api(?:\/|$)/.test(url.pathname);
  const wanted = wantedBy(routePattern, request.method, params);
  let actor: Actor | null;
  try {
    actor = await whoAsks(app, request.headers);
  } catch (error) {
    if (!isApi) throw error;
    return problemOf(app, error);
  }
  if (wanted !== 'nothing') {
    if (!actor) return isApi ? problem(401, 'Sign in, or send a key.') : toSignIn(url);
    if (!may(actor.role, wanted)) {
      const refused = actor;
      context.locals.actor = refused;
      return isApi
        ? problem(403, `As ${actor.role} you may not do this. Ask an owner.`)
        : workAs(refused, () => next('/refused'));
    }
  }
  if (actor) context.locals.actor = actor;
  const work = async () => {
    if (isApi) {
      const response = await next();
      const isPage = response.headers.get('content-type')?.startsWith('text/html') === true;
      return isPage ? problem(404, 'There is nothing at this address.') : response;
    }
    return request.method === 'GET' ? app.pages.render(request.headers, next) : next();
  };
  return actor ? workAs(actor, work, tabOf(request.headers)) : work();
});

/** The page where one signs in, and comes back from. */
function toSignIn({ pathname, search }: URL): Response {
  const to = pathname === '/' ? '' : `?to=${encodeURIComponent(pathname + search)}`;
  return new Response(null, { status: 303, headers: { location: `/sign-in${to}` } });
}

import { defineMiddleware } from 'astro:middleware';
import { app } from './server/app';
import { isOwnRequest } from './server/http/origin';
import { problem } from './server/http/problem';

/** Turns away what other sites' pages send; what programs ask is always answered for programs. */
export const onRequest = defineMiddleware(async ({ request }, next) => {
  if (!isOwnRequest(request)) return problem(403, 'Only pages of this program may do this.');
  if (/^\/+api(?:\/|$)/.test(new URL(request.url).pathname)) {
    const response = await next();
    const isPage = response.headers.get('content-type')?.startsWith('text/html') === true;
    return isPage ? problem(404, 'There is nothing at this address.') : response;
  }
  return request.method === 'GET' ? app().pages.render(request.headers, next) : next();
});

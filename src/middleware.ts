import { defineMiddleware } from 'astro:middleware';
import { isOwnRequest } from './server/http/origin';
import { problem } from './server/http/problem';

/** Turns away what other sites' pages send. */
export const onRequest = defineMiddleware((context, next) => {
  if (!isOwnRequest(context.request)) {
    return Promise.resolve(problem(403, 'Only pages of this program may do this.'));
  }
  return next();
});

import type { APIRoute } from 'astro';
import { problem } from '../../server/http/problem';

/** Addresses under which nothing is. */
export const ALL: APIRoute = ({ url }) =>
  problem(404, `There is nothing at ${url.pathname.slice(0, 200)}.`);

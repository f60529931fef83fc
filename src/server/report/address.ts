import type { APIContext } from 'astro';
import { param } from '../http/endpoint';
import { RequestError } from '../http/problem';

/** The number of a revision as it stands in an address. @throws RequestError */
export function numberFrom(text: string): number {
  if (/^[1-9]\d{0,5}$/.test(text)) return Number(text);
  throw new RequestError(404, 'There is no such report.');
}

/** The number of the revision that a request names. */
export const numberOf = (context: APIContext): number => numberFrom(param(context, 'number'));

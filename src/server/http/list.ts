import type { APIContext } from 'astro';
import { json, RequestError } from './problem';

/** The most items of a page. */
const LONGEST_PAGE = 1000;

/** What a list understands in its query, in words. */
export const LIST_QUERY = {
  limit: `so many of the list, 1–${LONGEST_PAGE}; all of it without`,
  after: 'those after this place, as the link to the next page has it',
} as const;

/**
 * A list, or the page of it that `?limit=` and `?after=` ask for, with a `Link` to the next (RFC 8288). A
 * page begins after an item and not at a number, so that what is added meanwhile neither hides nor doubles
 * one.
 *
 * @param keyOf what names an item
 */
export function listAnswer<Item>(
  { url }: APIContext,
  items: readonly Item[],
  keyOf: (item: Item) => unknown,
): Response {
  const [limit, after] = [url.searchParams.get('limit'), url.searchParams.get('after')];
  if (limit === null && after === null) return json(items);
  const most = Number(limit ?? LONGEST_PAGE);
  if (!Number.isInteger(most) || most < 1 || most > LONGEST_PAGE) {
    throw new RequestError(400, `?limit= must be a whole number from 1 to ${LONGEST_PAGE}.`);
  }
  const placeOf = (item: Item) => Buffer.from(JSON.stringify(keyOf(item))).toString('base64url');
  const at = after === null ? -1 : items.findIndex((item) => placeOf(item) === after);
  if (after !== null && at < 0) {
    throw new RequestError(
      410,
      'The item before this page was deleted: start again at the first page.',
    );
  }
  const page = items.slice(at + 1, at + 1 + most);
  const answer = json(page);
  const last = page.at(-1);
  if (last !== undefined && at + 1 + most < items.length) {
    const next = new URL(url);
    next.searchParams.set('limit', String(most));
    next.searchParams.set('after', placeOf(last));
    answer.headers.set('link', `<${next.pathname}${next.search}>; rel="next"`);
  }
  return answer;
}

import { AsyncLocalStorage } from 'node:async_hooks';

/** In whose name some work is done, and from where. */
interface Acting {
  /** `person:…` or `key:…` with its id; null where nobody has to say who they are. */
  actor: string | null;
  /** The browser's page that asks for it, by an id of its own: it is not told of its own changes. */
  tab: string | null;
}

const acting = new AsyncLocalStorage<Acting>();

/**
 * Does some work in somebody's name: every row that it enters and every change that it makes says so.
 *
 * @param actor `person:…` or `key:…` with its id; null where nobody has to say who they are
 * @param tab the page that asks for it, by its own id
 */
export const actingAs = <Result>(
  actor: string | null,
  work: () => Result,
  tab: string | null = null,
): Result => acting.run({ actor, tab }, work);

/** In whose name the present work is done; null where nobody has to say. */
export const presentActor = (): string | null => acting.getStore()?.actor ?? null;

/** The page that asks for the present work; null where it is none. */
export const presentTab = (): string | null => acting.getStore()?.tab ?? null;

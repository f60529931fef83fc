import { AsyncLocalStorage } from 'node:async_hooks';
import type { App } from '../app';

/** What is known of the request that the present work is for. */
export interface RequestScope {
  /** Told in the answer too, so that who was answered can name it. */
  id: string;
  /** `person:…` or `key:…`; null as long as it is not known. */
  actor: string | null;
  /** What the server works with, as the process that answers made it. */
  app: App;
}

declare global {
  // The front door and the application behind it are built apart: they find each other here.
  var vergleichRequests: AsyncLocalStorage<RequestScope> | undefined;
}
const scopes = (): AsyncLocalStorage<RequestScope> =>
  (globalThis.vergleichRequests ??= new AsyncLocalStorage());

/** Does the work that a request asks for. */
export const withinRequest = <Result>(scope: RequestScope, work: () => Result): Result =>
  scopes().run(scope, work);

/** The request that the present work is for; undefined where it is for none. */
export const presentRequest = (): RequestScope | undefined => scopes().getStore();

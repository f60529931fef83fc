import type { App as Server } from './server/app';
import type { Actor } from './server/http/actor';

declare global {
  namespace App {
    interface Locals {
      /** What the server works with; the process hands it on with every request. */
      app: Server;
      /** In whose name the page is asked for; lacking where somebody has to sign in first. */
      actor?: Actor;
    }
  }
}

import type { Actor } from './server/access/actor';

declare global {
  namespace App {
    interface Locals {
      /** In whose name the page is asked for; lacking where somebody has to sign in first. */
      actor?: Actor;
    }
  }
}

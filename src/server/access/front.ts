import type { IncomingMessage } from 'node:http';
import { may } from '../../core/model/access';
import { hasOwner } from '../../data';
import type { App } from '../app';
import { whoAsks } from './who';

/** Whether somebody owns the application: beyond this computer it is there only then. */
export const isOwned = (app: App): Promise<boolean> => hasOwner(app.db);

/** Who asks, as far as a page looks different for them; null where they may not see it. */
export async function viewerOf(app: App, req: IncomingMessage): Promise<string | null> {
  const headers = new Headers();
  for (const name of ['cookie', 'authorization'] as const) {
    const value = req.headers[name];
    if (value) headers.set(name, value);
  }
  const actor = await whoAsks(app, headers);
  if (!actor || !may(actor.role, 'see')) return null;
  return actor.kind === 'house' ? '' : [actor.role, actor.name, actor.initials].join('\t');
}

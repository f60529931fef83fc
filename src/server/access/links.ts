import { insertLink, type AccessLink } from '../../data';
import { app } from '../app';
import { hashOf, newToken } from './tokens';

/** A link as it is handed over. */
export interface HandedLink {
  path: string;
  minutes: number;
}

/** Minutes that each kind of link is good for. */
const LINK_MINUTES = { owner: 15, device: 5, person: 24 * 60 } as const;

/** Makes a link that lets in once: the path to it, and for how many minutes. */
export async function makeLink(link: AccessLink, db = app().db): Promise<HandedLink> {
  const token = newToken();
  const minutes = LINK_MINUTES[link.kind];
  await insertLink(db, link, hashOf(token), minutes);
  return { path: `/enter/${token}`, minutes };
}

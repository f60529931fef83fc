import { insertLink, type AccessLink, type Database } from '../../data';
import { hashOf, newToken } from './tokens';

/** A link as it is handed over. */
export interface HandedLink {
  path: string;
  minutes: number;
}

/** Minutes that each kind of link is good for. */
const LINK_MINUTES = { owner: 15, device: 5, person: 24 * 60 } as const;

/** Makes a link that lets in once: the path to it, and for how many minutes. */
export async function makeLink(db: Database, link: AccessLink): Promise<HandedLink> {
  const token = newToken();
  const minutes = LINK_MINUTES[link.kind];
  await insertLink(db, link, hashOf(token), minutes);
  return { path: `/enter/${token}`, minutes };
}

/** The path of a link that makes the owner, once, on this computer. */
export const linkForOwner = async (db: Database): Promise<string> =>
  (await makeLink(db, { kind: 'owner', person_id: null, role: null, leads_to: '/people' })).path;

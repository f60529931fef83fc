export type { Device } from '../server/access/devices';
export type { AccessKey, MadeKey } from '../server/access/keys';
export type { HandedLink } from '../server/access/links';
export type { AccessEntry } from '../server/access/log';
export type { Passkey } from '../server/access/passkeys';
export type { Person } from '../server/access/people';
export type { LinkOffer } from '../server/access/sign-in';

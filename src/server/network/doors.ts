import { hostname, networkInterfaces } from 'node:os';

/** Through which doors people come, as the environment says; read once. */
export interface Doors {
  /** Whether the application is there for others than this computer. */
  isOpen: boolean;
  /** Whether it is spoken to by TLS: cookies are only sent back by it. */
  isSecure: boolean;
  /** Names by which it may be addressed, without a port. */
  names: ReadonlySet<string>;
  /** Its address as others see it, where that was said. */
  publicUrl: string | null;
  /** Whether a proxy before it says from where a request comes. */
  isProxied: boolean;
  /** What the certificate is known by; null without one of our own. */
  fingerprint: string | null;
}

declare global {
  // The front door and the application behind it are built apart: they find each other here.
  var vergleichDoors: Doors | undefined;
}

/** A host as the header `Host` names it, without its port. */
export const bareHost = (host: string): string => host.toLowerCase().replace(/:\d+$/, '');

/** The names and addresses of this machine itself, and those that were said to be its own. */
function ownNames(env: NodeJS.ProcessEnv): Set<string> {
  const names = new Set<string>();
  const own = hostname().toLowerCase();
  names.add(own).add(`${own.split('.')[0]}.local`);
  for (const addresses of Object.values(networkInterfaces())) {
    for (const { address, family } of addresses ?? []) {
      names.add(family === 'IPv6' ? `[${address.replace(/%.*$/, '')}]` : address);
    }
  }
  for (const name of (env.ALLOWED_HOSTS ?? '').split(',')) {
    if (name.trim() !== '') names.add(bareHost(name.trim()));
  }
  const at = env.PUBLIC_URL ? new URL(env.PUBLIC_URL).host : null;
  if (at) names.add(bareHost(at));
  return names;
}

/**
 * Reads from the environment which doors are open.
 *
 * @throws Error that says what to change
 */
export function readDoors(env: NodeJS.ProcessEnv): Doors {
  const publicUrl = env.PUBLIC_URL ? env.PUBLIC_URL.replace(/\/+$/, '') : null;
  if (publicUrl !== null && !/^https?:\/\/[^/\s]+$/.test(publicUrl)) {
    throw new Error(
      `PUBLIC_URL is ${publicUrl}: it must be an address such as https://bench.example, without a path.`,
    );
  }
  const isProxied = env.TRUST_PROXY === '1';
  // A proxy lets others in: they are asked who they are.
  const isOpen = env.OPEN_DOORS === '1' || isProxied;
  if (env.TRUST_PROXY && !isProxied) {
    throw new Error(
      'TRUST_PROXY must be 1, where one proxy of yours stands before this, or unset.',
    );
  }
  return {
    isOpen,
    isProxied,
    publicUrl,
    fingerprint: null,
    isSecure: isProxied
      ? publicUrl?.startsWith('https:') === true
      : isOpen && env.PLAIN_HTTP !== '1',
    names: isOpen ? ownNames(env) : new Set(),
  };
}

/** The doors of this process. */
export const doors = (): Doors => (globalThis.vergleichDoors ??= readDoors(process.env));

/** An address of this computer that other devices can reach; null where it has none. */
export const outerName = (): string | null =>
  [...doors().names].find((name) => /^\d/.test(name) && !name.startsWith('127.')) ?? null;

/**
 * The address of the application as other devices reach it.
 *
 * @param host as whoever asks has it
 */
export function outerBase(host: string): string {
  const { publicUrl, isSecure } = doors();
  if (publicUrl !== null) return publicUrl;
  const scheme = isSecure ? 'https' : 'http';
  const port = /:\d+$/.exec(host)?.[0] ?? '';
  const bare = bareHost(host);
  const isOwnOnly = bare === 'localhost' || bare === '[::1]' || bare.startsWith('127.');
  const outer = outerName();
  return `${scheme}://${isOwnOnly && outer ? outer + port : host}`;
}

/** Sets what is known of the doors once they are open. */
export function tellDoors(known: Partial<Doors>): void {
  globalThis.vergleichDoors = { ...doors(), ...known };
}

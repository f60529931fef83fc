import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { presentWorker } from '../http/actor';

/** So many failed tries are free; each further one within the time is waited for. */
const LIMITS = {
  account: { points: 8, duration: 15 * 60, blockDuration: 15 * 60 },
  address: { points: 40, duration: 15 * 60, blockDuration: 15 * 60 },
  // A class in one room comes from one address.
  // Each begins a challenge, which is stored until it is used or expires.
  passkeys: { points: 60, duration: 15 * 60, blockDuration: 15 * 60 },
  judges: { points: 60, duration: 15 * 60, blockDuration: 15 * 60 },
  // What each of these asks for is work that outlives the request.
  files: { points: 5000, duration: 60 * 60 },
  imports: { points: 60, duration: 60 * 60 },
  reports: { points: 60, duration: 60 * 60 },
} as const;

type Kind = keyof typeof LIMITS;

type Counts = Record<Kind, RateLimiterPostgres>;

/** Counts of one kind; its table is there since the migrations, and so it needs no time to open. */
const open = (app: App, kind: Kind) =>
  new RateLimiterPostgres({
    storeClient: app.db.sequelize,
    storeType: 'sequelize',
    tableName: 'sign_in_tries',
    tableCreated: true,
    keyPrefix: kind,
    ...LIMITS[kind],
  });

const opened = new WeakMap<App, Counts>();

/** The counts of tries: they are in the database, for every process the same. */
function counts(app: App): Counts {
  const known = opened.get(app);
  if (known) return known;
  const made = {
    account: open(app, 'account'),
    address: open(app, 'address'),
    passkeys: open(app, 'passkeys'),
    judges: open(app, 'judges'),
    files: open(app, 'files'),
    imports: open(app, 'imports'),
    reports: open(app, 'reports'),
  };
  opened.set(app, made);
  return made;
}

/** Of whom a try is: a name, where it was by one, and the address that it came from. */
export interface Try {
  name?: string;
  address: string;
}

const accountOf = (name: string): string => name.trim().toLowerCase().slice(0, 80);

/** What a try counts for. */
function keysOf({ name, address }: Try): [Kind, string][] {
  const ofAddress: [Kind, string] = ['address', address];
  return name === undefined ? [ofAddress] : [['account', accountOf(name)], ofAddress];
}

/** Says that there were too many tries. @throws RequestError 429 with the time to wait */
function refuse(ms: number, what = 'Too many tries'): never {
  const seconds = Math.max(1, Math.ceil(ms / 1000));
  const words = seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`;
  throw new RequestError(429, `${what}: wait ${words}.`, { retry_after_s: seconds });
}

/**
 * Counts a try to come in, and lets it through where there were not too many: one step, so that of many at the same
 * moment no more come through. A try that succeeds is given back.
 *
 * @throws RequestError 429
 */
export async function takeTry(app: App, asked: Try): Promise<void> {
  const limits = counts(app);
  for (const [kind, key] of keysOf(asked)) {
    await limits[kind].consume(key).catch((error: unknown) => {
      if (error instanceof RateLimiterRes) refuse(error.msBeforeNext);
      throw error;
    });
  }
}

/** Takes a successful try off the count of the address, and resets that of the account. */
export async function giveBack(app: App, { name, address }: Try): Promise<void> {
  const limits = counts(app);
  await limits.address.reward(address);
  if (name !== undefined) await limits.account.delete(accountOf(name));
}

/** Counts that somebody begins to judge in a panel, from an address. @throws RequestError 429 */
export const checkBeginnings = (app: App, address: string): Promise<void> =>
  begins(app, 'judges', address);

/** Counts that somebody begins to sign in by a passkey, from an address. @throws RequestError 429 */
export const checkChallenges = (app: App, address: string): Promise<void> =>
  begins(app, 'passkeys', address);

async function begins(app: App, kind: 'judges' | 'passkeys', address: string): Promise<void> {
  await counts(app)
    [kind].consume(address)
    .catch((error: unknown) => {
      if (error instanceof RateLimiterRes) refuse(error.msBeforeNext);
      throw error;
    });
}

/**
 * Counts work that somebody asks for, which others would wait behind. Who sits at this computer alone is not counted.
 *
 * @throws RequestError 429
 */
export async function checkWork(app: App, kind: 'files' | 'imports' | 'reports'): Promise<void> {
  const worker = presentWorker();
  if (!worker?.id) return;
  await counts(app)
    [kind].consume(worker.id)
    .catch((error: unknown) => {
      if (error instanceof RateLimiterRes) {
        refuse(
          error.msBeforeNext,
          `You have asked for more than ${LIMITS[kind].points} ${kind} within an hour`,
        );
      }
      throw error;
    });
}

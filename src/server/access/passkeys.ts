import { isIP } from 'node:net';
import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
  type AuthenticationResponseJSON,
  type AuthenticatorTransport,
  type PublicKeyCredentialCreationOptionsJSON,
  type PublicKeyCredentialRequestOptionsJSON,
  type RegistrationResponseJSON,
} from '@simplewebauthn/server';
import { v7 as uuid } from 'uuid';
import * as z from 'zod';
import {
  deletePasskey,
  findPerson,
  findProof,
  insertPasskey,
  lockPerson,
  keepChallenge,
  listPasskeys,
  logAccess,
  notePasskeyUsed,
  proofsOf,
  transact,
  useChallenge,
  type Passkey,
  type PasskeyProof,
} from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { checkOwnPassword, myself } from './devices';
import { bareHost, doors } from '../network/doors';
import { beginSession, type Visitor } from './sign-in';
import { checkChallenges, giveBack, takeTry } from './tries';

export type { Passkey } from '../../data';

const MINUTES = 5;
const MOST_PASSKEYS = 20;

/** What a browser binds a passkey to: the name by which it reaches the application. */
interface Party {
  rpId: string;
  origin: string;
}

/**
 * Where a passkey of this host is good. Browsers bind passkeys to names: at a mere address there are none.
 *
 * @param host as the browser named it
 */
export function partyOf(host: string): Party | null {
  const { publicUrl, isSecure } = doors();
  const origin =
    publicUrl === null ? `${isSecure ? 'https' : 'http'}://${host}` : new URL(publicUrl).origin;
  const rpId = bareHost(new URL(origin).host).replace(/^\[|\]$/g, '');
  return isIP(rpId) === 0 ? { rpId, origin } : null;
}

function partyAt(host: string): Party {
  const party = partyOf(host);
  if (party) return party;
  throw new RequestError(
    409,
    'A passkey belongs to a name: open the application by its name and not by a number.',
  );
}

const base64url = z
  .string()
  .regex(/^[A-Za-z0-9_-]*$/)
  .max(20_000);

/** What a browser answers, as far as it is looked at here; what it means is checked by what reads it. */
const credential = {
  id: base64url,
  rawId: base64url,
  type: z.literal('public-key'),
  authenticatorAttachment: z.string().max(40).nullish(),
  clientExtensionResults: z.record(z.string().max(80), z.unknown()).default({}),
};

export const beginPasskeySchema = z.strictObject({ current: z.string().max(1024) });

export const addPasskeySchema = z.strictObject({
  name: z.string().trim().min(1, 'say what it is').max(80),
  response: z.object({
    ...credential,
    response: z.object({
      clientDataJSON: base64url,
      attestationObject: base64url,
      transports: z.array(z.string().max(40)).max(10).optional(),
    }),
  }),
});

export const passkeySignInSchema = z.strictObject({
  response: z.object({
    ...credential,
    response: z.object({
      clientDataJSON: base64url,
      authenticatorData: base64url,
      signature: base64url,
      userHandle: base64url.optional(),
    }),
  }),
});

/** The passkeys of who asks. */
export const myPasskeys = (app: App): Promise<Passkey[]> => listPasskeys(app.db, myself().personId);

const transportsOf = (proof: PasskeyProof) =>
  proof.transports.split(' ').filter((one) => one !== '') as AuthenticatorTransport[];

/**
 * What a browser makes a passkey of, for who asks; their password is asked once more.
 *
 * @throws RequestError
 */
export async function beginPasskey(
  app: App,
  current: string,
  host: string,
  address: string,
): Promise<PublicKeyCredentialCreationOptionsJSON> {
  const { rpId } = partyAt(host);
  const { personId, name } = myself();
  const { db } = app;
  await checkOwnPassword(app, current, address);
  const known = await proofsOf(db, personId);
  if (known.length >= MOST_PASSKEYS) {
    throw new RequestError(409, FULL);
  }
  const options = await generateRegistrationOptions({
    rpName: 'Vergleich',
    rpID: rpId,
    userName: name,
    userID: Buffer.from(personId),
    attestationType: 'none',
    excludeCredentials: known.map((one) => ({
      id: one.credential_id,
      transports: transportsOf(one),
    })),
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  });
  await keepChallenge(db, options.challenge, personId, MINUTES);
  return options;
}

const FULL = `You have ${MOST_PASSKEYS} passkeys: remove one first.`;
const LATE = 'This took too long, or was done already. Begin again.';

/** Keeps the passkey that a browser has made for who asks. @throws RequestError */
export async function addPasskey(
  app: App,
  { name, response }: z.infer<typeof addPasskeySchema>,
  host: string,
): Promise<void> {
  const { rpId, origin } = partyAt(host);
  const { personId } = myself();
  const { db } = app;
  const found = await verifyRegistrationResponse({
    response: response as RegistrationResponseJSON,
    expectedChallenge: (challenge) => useChallenge(db, challenge, personId),
    expectedOrigin: origin,
    expectedRPID: rpId,
    requireUserVerification: true,
  }).catch((error: unknown) => refuse(app, error, 422, LATE));
  if (!found.verified) throw new RequestError(422, LATE);
  const { id, publicKey, counter, transports } = found.registrationInfo.credential;
  const proof = {
    passkey_id: uuid(),
    person_id: personId,
    credential_id: id,
    counter,
    public_key: Buffer.from(publicKey),
    transports: (transports ?? []).join(' '),
  };
  await transact(db, async (bound) => {
    await lockPerson(bound, personId);
    // Two browsers at once may have begun where there was room for one.
    if ((await proofsOf(bound, personId)).length >= MOST_PASSKEYS)
      throw new RequestError(409, FULL);
    await insertPasskey(bound, proof, { name, rp_id: rpId });
    await logAccess(bound, { what: 'passkey added', detail: { passkey: name } });
  });
}

/** Takes a passkey away from who asks. */
export const dropPasskey = (app: App, passkeyId: string): Promise<void> =>
  transact(app.db, async (db) => {
    const name = await deletePasskey(db, myself().personId, passkeyId);
    if (name === null) throw new RequestError(404, 'There is no such passkey.');
    await logAccess(db, { what: 'passkey removed', detail: { passkey: name } });
  });

/** What a browser signs to sign somebody in: it knows itself which of its passkeys are good here. */
export async function beginPasskeySignIn(
  app: App,
  host: string,
  address: string,
): Promise<PublicKeyCredentialRequestOptionsJSON> {
  await checkChallenges(app, address);
  const options = await generateAuthenticationOptions({
    rpID: partyAt(host).rpId,
    userVerification: 'required',
  });
  await keepChallenge(app.db, options.challenge, null, MINUTES);
  return options;
}

const UNKNOWN = 'This passkey is not known here. Sign in by your password.';

/** Signs somebody in by their passkey. @throws RequestError 401, 429 */
export async function signInByPasskey(
  app: App,
  { response }: z.infer<typeof passkeySignInSchema>,
  host: string,
  visitor: Visitor,
): Promise<string> {
  const { db } = app;
  const { rpId, origin } = partyAt(host);
  const { address } = visitor;
  await takeTry(app, { address });
  const proof = await findProof(db, response.id);
  const failed = async (error: unknown): Promise<never> => {
    await logAccess(db, { what: 'sign-in failed', name: 'passkey', address });
    return refuse(app, error, 401, UNKNOWN);
  };
  if (!proof) return failed(new Error('unknown'));
  const found = await verifyAuthenticationResponse({
    response: response as AuthenticationResponseJSON,
    expectedChallenge: (challenge) => useChallenge(db, challenge, null),
    expectedOrigin: origin,
    expectedRPID: rpId,
    requireUserVerification: true,
    credential: {
      id: proof.credential_id,
      counter: proof.counter,
      transports: transportsOf(proof),
      publicKey: new Uint8Array(proof.public_key),
    },
  }).catch(failed);
  if (!found.verified) return failed(new Error('not verified'));
  await giveBack(app, { address });
  return transact(db, async (bound) => {
    await notePasskeyUsed(bound, proof.passkey_id, found.authenticationInfo.newCounter);
    const person = await findPerson(bound, proof.person_id);
    return beginSession(bound, person, person.role, 'by passkey', visitor);
  });
}

/** What cannot be verified is refused in words; what the database says is not a refusal. */
function refuse(app: App, error: unknown, status: 401 | 422, words: string): never {
  if (error instanceof Error && 'sql' in error) throw error;
  app.log.info(
    { reason: error instanceof Error ? error.message : 'unknown' },
    'a passkey was refused',
  );
  throw new RequestError(status, words);
}

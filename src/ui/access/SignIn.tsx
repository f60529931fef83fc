import {
  browserSupportsWebAuthn,
  startAuthentication,
  type PublicKeyCredentialRequestOptionsJSON,
} from '@simplewebauthn/browser';
import { useEffect, useState } from 'react';
import { callApi } from '../kit/request';
import { useTrying } from '../kit/use-trying';
import { Failure, PresentPassword, TextField } from './fields';
import { describePasskeyFault } from './describe-passkey-fault';

/**
 * Name and password, and what is said where they do not fit; or a passkey.
 *
 * @param isNamed whether the application is reached by a name, to which passkeys belong
 */
export function SignIn({ to, isNamed }: { to: string; isNamed: boolean }) {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const [hasPasskeys, setHasPasskeys] = useState(false);
  const { message, isBusy, attempt } = useTrying();
  // Whether the browser has passkeys, the server does not know.
  useEffect(() => setHasPasskeys(isNamed && browserSupportsWebAuthn()), [isNamed]);
  const signByPasskey = () =>
    attempt(async () => {
      const optionsJSON = await callApi<PublicKeyCredentialRequestOptionsJSON>(
        'POST',
        '/sign-in/passkey',
      );
      const response = await startAuthentication({ optionsJSON }).catch(describePasskeyFault);
      await callApi('PUT', '/sign-in/passkey', { response });
      location.assign(to);
    });
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void attempt(async () => {
          await callApi('POST', '/sign-in', { name, password });
          location.assign(to);
        });
      }}
    >
      <TextField label="name" value={name} onChange={setName} autoComplete="username" isFirst />
      <PresentPassword value={password} onChange={setPassword} />
      <Failure message={message} />
      <p>
        <button type="submit" className="action action-main" disabled={isBusy}>
          Sign in
        </button>{' '}
        {hasPasskeys && (
          <button
            type="button"
            className="action"
            disabled={isBusy}
            onClick={() => void signByPasskey()}
          >
            Use a passkey
          </button>
        )}
      </p>
    </form>
  );
}

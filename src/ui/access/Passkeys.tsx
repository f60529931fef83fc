import {
  startRegistration,
  type PublicKeyCredentialCreationOptionsJSON,
} from '@simplewebauthn/browser';
import { useState } from 'react';
import type { Passkey } from '../../contract/access';
import { callApi } from '../kit/request';
import { useTrying } from '../kit/use-trying';
import { shortTime } from '../lib/format';
import { Failure, Line, PresentPassword, TextField } from './fields';
import { describePasskeyFault } from './describe-passkey-fault';

/** The passkeys that one signs in by in place of the password. */
export function Passkeys({
  passkeys,
  isNamed,
}: {
  passkeys: readonly Passkey[];
  isNamed: boolean;
}) {
  const [own, setOwn] = useState(passkeys);
  const [name, setName] = useState('');
  const [current, setCurrent] = useState('');
  const { message, isBusy, attempt } = useTrying();
  const look = async () => setOwn(await callApi<Passkey[]>('GET', '/me/passkeys'));
  const add = () =>
    attempt(async () => {
      const optionsJSON = await callApi<PublicKeyCredentialCreationOptionsJSON>(
        'POST',
        '/me/passkeys',
        { current },
      );
      const response = await startRegistration({ optionsJSON }).catch(describePasskeyFault);
      await callApi('PUT', '/me/passkeys', { name: name.trim(), response });
      setName('');
      setCurrent('');
      await look();
    });
  const drop = (passkey: Passkey) =>
    attempt(async () => {
      await callApi('DELETE', `/me/passkeys/${passkey.passkey_id}`);
      await look();
    });
  return (
    <>
      <ul aria-label="Your passkeys">
        {own.map((one) => (
          <Line key={one.passkey_id}>
            <span className="min-w-0 flex-1 basis-60">
              {one.name}
              <span className="block text-2xs text-ink-2">
                for {one.rp_id} · since {one.made_at.slice(0, 10)} ·{' '}
                {one.used_at ? `last used ${shortTime(one.used_at)}` : 'never used'}
              </span>
            </span>
            <button
              type="button"
              className="action"
              aria-label={`Remove the passkey ${one.name}`}
              onClick={() => void drop(one)}
            >
              Remove
            </button>
          </Line>
        ))}
      </ul>
      {isNamed ? (
        <form
          className="mt-3 grid max-w-md gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            void add();
          }}
        >
          <TextField label="what it is: this phone, a stick" value={name} onChange={setName} />
          <PresentPassword label="present password" value={current} onChange={setCurrent} />
          <p>
            <button type="submit" className="action" disabled={isBusy}>
              Add a passkey
            </button>
          </p>
        </form>
      ) : (
        <p className="text-ink-2">
          A passkey belongs to a name: open the application by its name and not by a number, over a
          certificate that this device trusts.
        </p>
      )}
      <Failure message={message} />
    </>
  );
}

import { useState } from 'react';
import { ROLE_WORDS } from '../../core/model/access';
import type { LinkOffer } from '../../contract/access';
import { callApi } from '../kit/request';
import { useTrying } from '../kit/use-trying';
import { Failure, NewPassword, TextField } from './fields';

/** Comes in by a link: as the owner, with a first password, or with one more device. */
export function Enter({ token, offer }: { token: string; offer: LinkOffer }) {
  const [name, setName] = useState('');
  const [initials, setInitials] = useState('');
  const [password, setPassword] = useState('');
  const { message, isBusy, attempt } = useTrying();
  const isDevice = offer.kind === 'device';
  const who = `${offer.role}: ${ROLE_WORDS[offer.role]}`;
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void attempt(async () => {
          const said = isDevice ? {} : { password, ...(offer.name === null && { name, initials }) };
          const { to } = await callApi<{ to: string }>('POST', '/enter', { token, ...said });
          location.assign(to);
        });
      }}
    >
      {isDevice && (
        <p>
          This device comes in as <b>{offer.name}</b>, {who}.
        </p>
      )}
      {offer.kind === 'owner' && (
        <p className="text-ink-2">
          The owner may do everything and invites others. From then on everyone signs in, on this
          computer too.
        </p>
      )}
      {offer.kind === 'person' && (
        <p>
          Set the password for <b>{offer.name}</b>, {who}.
        </p>
      )}
      {offer.name === null && (
        <div className="grid grid-cols-[1fr_7rem] gap-3">
          <TextField label="name" value={name} onChange={setName} autoComplete="username" isFirst />
          <TextField
            label="initials"
            value={initials}
            onChange={setInitials}
            isRequired={false}
            limit={20}
          />
        </div>
      )}
      {!isDevice && <NewPassword value={password} onChange={setPassword} />}
      <Failure message={message} />
      <p>
        <button type="submit" className="action action-main" disabled={isBusy} autoFocus={isDevice}>
          {isDevice ? 'Come in' : 'Set the password and come in'}
        </button>
      </p>
    </form>
  );
}

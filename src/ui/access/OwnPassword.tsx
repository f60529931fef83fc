import { useState } from 'react';
import { callApi } from '../kit/request';
import { useTrying } from '../kit/use-trying';
import { Failure, NewPassword, PresentPassword } from './fields';

/** Another password for oneself; the other devices sign in anew. */
export function OwnPassword() {
  const [current, setCurrent] = useState('');
  const [password, setPassword] = useState('');
  const [isChanged, setChanged] = useState(false);
  const { message, isBusy, attempt } = useTrying();
  const change = async () => {
    setChanged(false);
    const isDone = await attempt(() => callApi('PATCH', '/me', { current, password }));
    if (!isDone) return;
    setCurrent('');
    setPassword('');
    setChanged(true);
  };
  return (
    <form
      className="grid max-w-md gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void change();
      }}
    >
      <PresentPassword label="present password" value={current} onChange={setCurrent} />
      <NewPassword label="new password" value={password} onChange={setPassword} />
      <p>
        <button type="submit" className="action" disabled={isBusy}>
          Change
        </button>
      </p>
      <Failure message={message} />
      {isChanged && (
        <p role="status">The password was changed. Your other devices must sign in again.</p>
      )}
    </form>
  );
}

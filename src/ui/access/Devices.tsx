import { useState } from 'react';
import type { Device } from '../../contract/access';
import { callApi } from '../kit/request';
import { useTrying } from '../kit/use-trying';
import { forgetPages } from '../frame/Offline';
import { shortTime } from '../lib/format';
import { Failure, Line } from './fields';

/** The devices that one is signed in on, each to be signed out. */
export function Devices({ devices }: { devices: readonly Device[] }) {
  const [left, setLeft] = useState(devices);
  const { message, attempt } = useTrying();
  const end = (device: Device) =>
    attempt(async () => {
      if (device.isThis) {
        await callApi('DELETE', '/me');
        await forgetPages();
        location.assign('/sign-in');
        return;
      }
      await callApi('DELETE', `/me/devices/${device.session_id}`);
      setLeft((known) => known.filter((one) => one !== device));
    });
  return (
    <>
      <ul>
        {left.map((device) => (
          <Line key={device.session_id}>
            <span className="min-w-0 flex-1 basis-60">
              {device.device} {device.isThis && <b>this one</b>}
              <span className="block text-2xs text-ink-2">
                {device.role} · last used {shortTime(device.used_at)} from {device.address}
              </span>
            </span>
            <button
              type="button"
              className="action"
              aria-label={`Sign out ${device.isThis ? 'this device' : device.device}`}
              onClick={() => void end(device)}
            >
              Sign out
            </button>
          </Line>
        ))}
      </ul>
      <Failure message={message} />
    </>
  );
}

import { minutesOf } from '../../core/model/study';
import { useEffect, useState } from 'react';
import type { Role } from '../../core/model/access';
import type { HandedLink } from '../../contract/access';
import { callApi } from '../kit/request';
import { useTrying } from '../kit/use-trying';
import { qrPath } from '../sheets/qr-path';
import { Failure, RoleSelect } from './fields';

/** A link and until when it is good. */
interface Shown {
  address: string;
  ends: number;
}

interface PairDeviceProps {
  /** Roles that may be handed on, the one with the most rights first. */
  roles: readonly Role[];
  /** The address of the application as other devices reach it. */
  base: string;
  /** Where the device is led. */
  leadsTo: string;
}

/** Shows a code that signs a phone in: good once, for minutes, and never as an owner. */
export function PairDevice({ roles, base, leadsTo }: PairDeviceProps) {
  const [role, setRole] = useState<Role>(
    roles.includes('operator') ? 'operator' : (roles[0] ?? 'reader'),
  );
  const [shown, setShown] = useState<Shown | null>(null);
  const [left, setLeft] = useState(0);
  const { message, attempt } = useTrying();
  useEffect(() => {
    if (!shown) return;
    const tick = () => setLeft(Math.max(0, Math.ceil((shown.ends - Date.now()) / 1000)));
    tick();
    const timer = setInterval(tick, 1000);
    return () => clearInterval(timer);
  }, [shown]);
  const show = () =>
    attempt(async () => {
      const asked = { role, leads_to: leadsTo };
      const { path, minutes } = await callApi<HandedLink>('POST', '/me/devices', asked);
      setShown({ address: base + path, ends: Date.now() + minutes * 60_000 });
    });
  const code = shown && left > 0 ? qrPath(shown.address) : null;
  return (
    <div className="flex flex-wrap items-start gap-x-6 gap-y-3">
      <div className="grid w-full max-w-md grid-cols-1 gap-2">
        <p className="flex flex-wrap items-center gap-2">
          it may as
          <RoleSelect label="What the device may" roles={roles} value={role} onChange={setRole} />
        </p>
        <p>
          <button type="button" className="action action-main" onClick={() => void show()}>
            {code ? 'Show another code' : 'Show the code'}
          </button>
        </p>
        <Failure message={message} />
        {shown && left === 0 && <p className="text-ink-2">The code has expired. Show a new one.</p>}
        {code && (
          <p className="text-xs break-all text-ink-2">
            Good once, for {minutesOf(left)}. Or open <a href={shown?.address}>{shown?.address}</a>
          </p>
        )}
      </div>
      {code && (
        <svg
          role="img"
          aria-label="Code that signs a device in"
          viewBox={`-3 -3 ${code.size + 6} ${code.size + 6}`}
          className="bg-white h-56 w-56"
        >
          <path d={code.path} fill="#000" />
        </svg>
      )}
    </div>
  );
}

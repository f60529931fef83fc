import { useState, type SetStateAction, type Dispatch } from 'react';
import type { Role } from '../../core/model/access';
import type { AccessKey, MadeKey } from '../../contract/access';
import { callApi } from '../kit/request';
import { useTrying } from '../kit/use-trying';
import { Failure, Line, NewLine, RoleSelect } from './fields';

const ROLES_OF_KEYS: readonly Role[] = ['evaluator', 'operator', 'reader', 'machine'];
const DAYS = [7, 30, 90, 366];

/** Keys for programs: named, with a role and an end, shown once. */
export function KeyTable({ keys }: { keys: readonly AccessKey[] }) {
  const [rows, setRows] = useState(keys);
  const [name, setName] = useState('');
  const [role, setRole] = useState<Role>('reader');
  const [days, setDays] = useState(90);
  const [machine, setMachine] = useState('');
  const [made, setMade] = useState<{ name: string; secret: string; machine: string | null } | null>(
    null,
  );
  const { message, attempt } = useTrying();
  const add = () =>
    attempt(async () => {
      const machine_id = role === 'machine' ? machine.trim() : undefined;
      const wanted = {
        name: name.trim(),
        role,
        days,
        ...(machine_id !== undefined && { machine_id }),
      };
      const key = await callApi<MadeKey>('POST', '/keys', wanted);
      setMade({ name: wanted.name, secret: key.secret, machine: machine_id ?? null });
      setMachine('');
      setName('');
      setRows(await callApi<AccessKey[]>('GET', '/keys'));
    });
  const takeBack = (key: AccessKey) =>
    attempt(async () => {
      await callApi('DELETE', `/keys/${key.key_id}`);
      setRows(await callApi<AccessKey[]>('GET', '/keys'));
    });
  return (
    <>
      <ul>
        {rows.map((key) => (
          <KeyLine key={key.key_id} own={key} takeBack={takeBack} />
        ))}
      </ul>
      <NewKey
        name={name}
        setName={setName}
        add={add}
        role={role}
        setRole={setRole}
        machine={machine}
        setMachine={setMachine}
        days={days}
        setDays={setDays}
      />
      <div className="grid gap-2 px-3 pb-2 empty:hidden">
        {made && (
          <p role="status">
            The key {made.name}, shown this once;{' '}
            {made.machine === null ? (
              <>
                a program sends it as <code>Authorization: Bearer …</code>:
              </>
            ) : (
              <>
                the password of the user <code>{made.machine}</code> on the bench link:
              </>
            )}
            <code className="block text-xs break-all">{made.secret}</code>
          </p>
        )}
        <Failure message={message} />
      </div>
    </>
  );
}

interface KeyLineProps {
  own: AccessKey;
  takeBack: (key: AccessKey) => Promise<boolean>;
}

/** One key: for whom, until when, last used when. */
function KeyLine({ own, takeBack }: KeyLineProps) {
  return (
    <Line>
      <span className="min-w-0 flex-1 basis-60">
        {own.name}
        <span className="block text-2xs text-ink-2">
          {own.machine_id === null ? own.role : `machine ${own.machine_id}`} · {stateOf(own)} ·{' '}
          {own.used_at ? `last used ${own.used_at.slice(0, 10)}` : 'never used'}
        </span>
      </span>
      {!own.revoked_at && (
        <button
          type="button"
          className="action"
          aria-label={`Take back the key ${own.name}`}
          onClick={() => void takeBack(own)}
        >
          Take back
        </button>
      )}
    </Line>
  );
}

interface NewKeyProps {
  name: string;
  setName: Dispatch<SetStateAction<string>>;
  add: () => Promise<boolean>;
  role: 'owner' | 'evaluator' | 'operator' | 'reader' | 'machine' | 'judge';
  setRole: Dispatch<
    SetStateAction<'owner' | 'evaluator' | 'operator' | 'reader' | 'machine' | 'judge'>
  >;
  machine: string;
  setMachine: Dispatch<SetStateAction<string>>;
  days: number;
  setDays: Dispatch<SetStateAction<number>>;
}

/** A new key. */
function NewKey({
  name,
  setName,
  add,
  role,
  setRole,
  machine,
  setMachine,
  days,
  setDays,
}: NewKeyProps) {
  return (
    <NewLine
      label="Name of a new key"
      placeholder="+ a key: what it is for"
      name={name}
      onName={setName}
      action="Make the key"
      onAdd={() => void add()}
    >
      <RoleSelect label="Role of a new key" roles={ROLES_OF_KEYS} value={role} onChange={setRole} />
      {role === 'machine' && (
        <input
          className="field w-32"
          aria-label="The machine’s id on the bench link"
          placeholder="its id"
          required
          maxLength={64}
          value={machine}
          onChange={(event) => setMachine(event.target.value)}
        />
      )}
      <select
        className="field w-auto"
        aria-label="Days that a new key lasts"
        value={days}
        onChange={(event) => setDays(Number(event.target.value))}
      >
        {DAYS.map((each) => (
          <option key={each} value={each}>
            {each} days
          </option>
        ))}
      </select>
    </NewLine>
  );
}

function stateOf({ revoked_at, ends_at }: AccessKey): string {
  if (revoked_at) return `taken back ${revoked_at.slice(0, 10)}`;
  return `${Date.parse(ends_at) < Date.now() ? 'ended' : 'until'} ${ends_at.slice(0, 10)}`;
}

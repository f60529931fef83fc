import { useState } from 'react';
import { ROLES, type Role } from '../../core/model/access';
import type { HandedLink, Person } from '../../contract/access';
import { callApi } from '../kit/request';
import { useOnce } from '../kit/use-once';
import { useTrying } from '../kit/use-trying';
import { Failure, Line, NewLine, RoleSelect } from './fields';

interface PeopleTableProps {
  people: readonly Person[];
  /** The address of the application as other devices reach it. */
  base: string;
}

/** Who may come in, as what; an owner makes people, changes roles, closes doors. */
export function PeopleTable({ people, base }: PeopleTableProps) {
  const [rows, setRows] = useState(people);
  const [name, setName] = useState('');
  const [initials, setInitials] = useState('');
  const [role, setRole] = useState<Role>('evaluator');
  const [link, setLink] = useState<(HandedLink & { name: string }) | null>(null);
  const { message, attempt } = useTrying();
  const once = useOnce();
  const add = () =>
    attempt(async () => {
      const made = await callApi<{ person: Person; link: HandedLink }>('POST', '/people', {
        name: name.trim(),
        initials: initials.trim() || null,
        role,
      });
      setRows((known) => [...known, made.person]);
      setLink({ ...made.link, name: made.person.name });
      setName('');
      setInitials('');
    });
  const change = (person: Person, sent: { role?: Role; isClosed?: boolean }) =>
    attempt(async () => {
      const path = `/people/${person.person_id}`;
      const after = await callApi<Person>('PATCH', path, { version: person.row_version, ...sent });
      setRows((known) => known.map((one) => (one.person_id === after.person_id ? after : one)));
    });
  const handLink = (person: Person) =>
    attempt(async () => {
      const made = await callApi<HandedLink>('POST', `/people/${person.person_id}`, {});
      setLink({ ...made, name: person.name });
    });
  return (
    <>
      <ul>
        {rows.map((person) => (
          <PersonLine key={person.person_id} person={person} change={change} handLink={handLink} />
        ))}
      </ul>
      <NewLine
        label="Name of a new person"
        placeholder="+ a person: the name"
        name={name}
        onName={setName}
        action="Let in"
        onAdd={() => once('add', add)}
      >
        <input
          className="field w-24"
          aria-label="Initials of a new person"
          placeholder="initials"
          maxLength={20}
          value={initials}
          onChange={(event) => setInitials(event.target.value)}
        />
        <RoleSelect label="Role of a new person" roles={ROLES} value={role} onChange={setRole} />
      </NewLine>
      <div className="grid gap-2 px-3 pb-2 empty:hidden">
        {link && (
          <p role="status">
            Hand this to {link.name}; it sets the password, once, within{' '}
            {Math.round(link.minutes / 60)} hours:{' '}
            <code className="block text-xs break-all">{base + link.path}</code>
          </p>
        )}
        <Failure message={message} />
      </div>
    </>
  );
}

interface PersonLineProps {
  person: Person;
  change: (person: Person, sent: { role?: Role; isClosed?: boolean }) => Promise<boolean>;
  handLink: (person: Person) => Promise<boolean>;
}

/** One person, with role and link. */
function PersonLine({ person, change, handLink }: PersonLineProps) {
  return (
    <Line>
      <span className="min-w-0 flex-1 basis-40">
        {person.name} <span className="text-ink-2">{person.initials}</span>
        {person.closed_at && <span className="text-ink-2">, no longer comes in</span>}
      </span>
      <RoleSelect
        label={`Role of ${person.name}`}
        roles={ROLES}
        value={person.role}
        onChange={(next) => void change(person, { role: next })}
      />
      <span className="flex gap-2">
        {!person.closed_at && (
          <button
            type="button"
            className="action"
            aria-label={`New password for ${person.name}`}
            onClick={() => void handLink(person)}
          >
            New password
          </button>
        )}
        <button
          type="button"
          className="action"
          aria-label={`${person.closed_at ? 'Open' : 'Close'} the door to ${person.name}`}
          onClick={() => void change(person, { isClosed: person.closed_at === null })}
        >
          {person.closed_at ? 'Open the door' : 'Close the door'}
        </button>
      </span>
    </Line>
  );
}

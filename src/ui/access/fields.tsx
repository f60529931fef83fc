import { chosenOf } from '../kit/chosen';
import type { ReactNode } from 'react';
import { FEWEST_CHARACTERS, ROLE_WORDS, type Role } from '../../core/model/access';

interface TextFieldProps {
  label: ReactNode;
  value: string;
  onChange: (value: string) => void;
  autoComplete?: string;
  isFirst?: boolean;
  isRequired?: boolean;
  limit?: number;
}

/** A field under its label. */
export function TextField(props: TextFieldProps & { type?: 'text' | 'password' }) {
  return (
    <label className="grid gap-1">
      <span>{props.label}</span>
      <input
        className="field"
        type={props.type ?? 'text'}
        value={props.value}
        autoComplete={props.autoComplete ?? 'off'}
        autoFocus={props.isFirst ?? false}
        required={props.isRequired ?? true}
        maxLength={props.limit ?? 80}
        onChange={(event) => props.onChange(event.target.value)}
      />
    </label>
  );
}

/** The password that somebody has. */
export const PresentPassword = ({
  label = 'password',
  ...props
}: Partial<TextFieldProps> & Pick<TextFieldProps, 'value' | 'onChange'>) => (
  <TextField
    {...props}
    label={label}
    type="password"
    autoComplete="current-password"
    limit={1024}
  />
);

/** A password that somebody chooses, with what is asked of it. */
export const NewPassword = ({
  label = 'password',
  ...props
}: Partial<TextFieldProps> & Pick<TextFieldProps, 'value' | 'onChange'>) => (
  <TextField
    {...props}
    label={
      <>
        {label}{' '}
        <span className="text-xs text-ink-2">
          {FEWEST_CHARACTERS} characters or more; several words are easy to keep
        </span>
      </>
    }
    type="password"
    autoComplete="new-password"
    limit={1024}
  />
);

interface RoleSelectProps {
  label: string;
  roles: readonly Role[];
  value: Role;
  onChange: (role: Role) => void;
}

/** A role, with what it is for. */
export function RoleSelect({ label, roles, value, onChange }: RoleSelectProps) {
  return (
    <select
      className="field w-auto max-w-full min-w-0"
      aria-label={label}
      value={value}
      onChange={(event) => onChange(chosenOf(event, roles))}
    >
      {roles.map((role) => (
        <option key={role} value={role}>
          {role}: {ROLE_WORDS[role]}
        </option>
      ))}
    </select>
  );
}

/** What went wrong; nothing where nothing did. */
export const Failure = ({ message }: { message: string | null }) =>
  message === null ? null : (
    <p role="alert" className="text-warn">
      {message}
    </p>
  );

/** A line of a list that holds on a phone: its parts go below one another where there is no room. */
export const Line = ({ children }: { children: ReactNode }) => (
  <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line-soft px-3 py-1.5">
    {children}
  </li>
);

interface NewLineProps {
  /** What the line is called, and what its first field asks for. */
  label: string;
  placeholder: string;
  name: string;
  onName: (name: string) => void;
  action: string;
  onAdd: () => void;
  /** What else is said of it. */
  children: ReactNode;
}

/** The end of a list, where another line is named and added. */
export const NewLine = ({
  label,
  placeholder,
  name,
  onName,
  action,
  onAdd,
  children,
}: NewLineProps) => (
  <form
    className="flex flex-wrap items-center gap-2 p-2"
    onSubmit={(event) => {
      event.preventDefault();
      onAdd();
    }}
  >
    <input
      className="field w-48"
      aria-label={label}
      placeholder={placeholder}
      maxLength={80}
      value={name}
      onChange={(event) => onName(event.target.value)}
    />
    {children}
    <button type="submit" className="action" disabled={name.trim() === ''}>
      {action}
    </button>
  </form>
);

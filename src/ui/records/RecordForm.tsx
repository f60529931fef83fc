import type { FieldSpec } from './fields';
import { FieldInput } from './FieldInput';
import { SaveNote } from './SaveNote';
import { useRecord, type RecordHandle, type Value, type Values } from './use-record';

interface RecordFormProps {
  /** Address of the record under the API. */
  path: string;
  fields: readonly FieldSpec[];
  values: Values;
  version: number;
  label: string;
  /** Told of the record as it stands, whenever a change has been taken. */
  onSaved?: (row: Values & { row_version: number }) => void;
}

/** A record that is saved as it is typed, field by field. */
export function RecordForm({ path, fields, values, version, label, onSaved }: RecordFormProps) {
  const record = useRecord({ path, ...(onSaved && { onSaved }) }, values, version);
  return <RecordFields record={record} fields={fields} label={label} />;
}

interface RecordFieldsProps {
  record: RecordHandle;
  fields: readonly FieldSpec[];
  label: string;
}

/** The fields of a record, what of it is saved, and what somebody else has changed. */
export function RecordFields({ record, fields, label }: RecordFieldsProps) {
  const nameOf = (name: string) => fields.find((field) => field.name === name)?.label ?? name;
  const others = record.changedByOthers.filter((name) => fields.some((f) => f.name === name));
  return (
    <form
      aria-label={label}
      onSubmit={(event) => event.preventDefault()}
      className="grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-3"
    >
      {fields.map((field) => (
        <div key={field.name} className={field.kind === 'long' ? 'col-span-full' : ''}>
          <FieldInput
            field={field}
            value={record.values[field.name] ?? null}
            issue={record.issues[field.name]}
            onCommit={(value) => record.commit(field.name, value)}
          />
        </div>
      ))}
      <div className="col-span-full">
        <SaveNote state={record.state} />
        {others.length > 0 && (
          <p role="alert" className="text-xs text-warn">
            Somebody else changed {others.map(nameOf).join(', ')} in the meantime: the newer value
            is shown.
          </p>
        )}
        <ConflictNote record={record} nameOf={nameOf} />
      </div>
    </form>
  );
}

/** Both sides of a field that two people have changed; nothing is overwritten unseen. */
export function ConflictNote({
  record,
  nameOf,
}: {
  record: RecordHandle;
  nameOf: (name: string) => string;
}) {
  const { conflict } = record;
  if (!conflict) return null;
  const say = (value: Value) => (value === null ? 'not known' : `“${value}”`);
  return (
    <div role="alert" className="mt-1 sheet border-warn bg-warn-soft p-3">
      <p>
        Somebody else changed <b>{nameOf(conflict.field)}</b> to {say(conflict.theirs)} while you
        wrote {say(conflict.own)}.
      </p>
      <p className="mt-2 flex gap-2">
        <button type="button" className="action" onClick={() => record.resolve('own')}>
          Keep mine
        </button>
        <button type="button" className="action" onClick={() => record.resolve('theirs')}>
          Use theirs
        </button>
      </p>
    </div>
  );
}

import { inWords } from '../../../core/model/study';

interface ChoiceProps<Value extends string> {
  label: string;
  value: Value | '';
  options: readonly Value[];
  onChange: (value: Value | '') => void;
}

/** One of some words, or none of them. */
export function Choice<Value extends string>({
  label,
  value,
  options,
  onChange,
}: ChoiceProps<Value>) {
  return (
    <label className="text-xs text-ink-2">
      {label}
      <select
        className="block field w-32"
        value={value}
        onChange={(event) =>
          onChange(options.find((option) => option === event.target.value) ?? '')
        }
      >
        <option value="">not stated</option>
        {options.map((option) => (
          <option key={option} value={option}>
            {inWords(option)}
          </option>
        ))}
      </select>
    </label>
  );
}

interface KeysProps<Value extends string> {
  label: string;
  value: string | null;
  options: readonly { value: Value; key: string }[];
  onChoose: (value: Value) => void;
}

/** Things to be said with one key each. */
export function Keys<Value extends string>({ label, value, options, onChoose }: KeysProps<Value>) {
  return (
    <div className="flex flex-wrap items-center gap-1" role="group" aria-label={label}>
      <span className="w-12 text-xs text-ink-2">{label}</span>
      {options.map((option) => (
        <button
          key={option.value}
          type="button"
          className="action min-h-[32px] text-xs aria-pressed:bg-plum-soft aria-pressed:font-semibold"
          aria-pressed={value === option.value}
          data-keys={option.key}
          data-does={`${label}: ${inWords(option.value)}`}
          onClick={() => onChoose(option.value)}
        >
          {inWords(option.value)} <kbd className="key">{option.key}</kbd>
        </button>
      ))}
    </div>
  );
}

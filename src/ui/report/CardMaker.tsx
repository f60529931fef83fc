import { useState } from 'react';

interface CardMakerProps {
  studyId: string;
  number: number;
  subjects: readonly { subject: string; title: string }[];
}

const SIZES = [
  ['wide', 'video, 1920 × 1080'],
  ['square', 'post, 1080 × 1080'],
] as const;
const THEMES = [
  ['light', 'light'],
  ['dark', 'dark'],
  ['clear', 'without background'],
] as const;

/** Cards for video and posts: one subject, its size and look, as SVG and PNG. */
export function CardMaker({ studyId, number, subjects }: CardMakerProps) {
  const [subject, setSubject] = useState(subjects[0]?.subject ?? '');
  const [size, setSize] = useState<string>('wide');
  const [theme, setTheme] = useState<string>('light');
  const address = (as: 'svg' | 'png') =>
    `/api/v1/studies/${studyId}/report/revisions/${number}/card?${new URLSearchParams({ subject, size, theme, as })}`;
  const name = `${subject.replace('/', '-')}-${size}-${theme}`;
  const title = subjects.find((one) => one.subject === subject)?.title ?? '';
  return (
    <div className="grid gap-3 lg:grid-cols-[280px_minmax(0,1fr)]">
      <fieldset className="max-h-[70dvh] overflow-y-auto sheet p-2 text-xs">
        <legend className="sr-only">What the card shows</legend>
        {subjects.map((one) => (
          <label key={one.subject} className="flex min-h-[24px] items-start gap-1 py-0.5">
            <input
              type="radio"
              className="m-[5px]"
              name="subject"
              checked={one.subject === subject}
              onChange={() => setSubject(one.subject)}
            />
            <span>{one.title}</span>
          </label>
        ))}
      </fieldset>
      <div className="min-w-0">
        <div className="mb-2 flex flex-wrap items-center gap-3 text-xs">
          <Choice label="size" value={size} options={SIZES} onChange={setSize} />
          <Choice label="look" value={theme} options={THEMES} onChange={setTheme} />
          <a className="action action-main" href={address('png')} download={`${name}.png`}>
            PNG
          </a>
          <a className="action" href={address('svg')} download={`${name}.svg`}>
            SVG
          </a>
        </div>
        <div className={`sheet p-2 ${theme === 'clear' ? 'unknown' : ''}`}>
          <img
            key={address('svg')}
            className={
              'mx-auto block max-h-[68dvh] w-auto max-w-full ' +
              `${theme === 'dark' ? '' : 'border border-line-soft'}`
            }
            width={size === 'wide' ? 1920 : 1080}
            height={1080}
            src={address('svg')}
            alt={`Card: ${title}`}
          />
        </div>
      </div>
    </div>
  );
}

interface ChoiceProps {
  label: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
}

function Choice({ label, value, options, onChange }: ChoiceProps) {
  return (
    <label>
      {label}{' '}
      <select
        className="field w-auto"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      >
        {options.map(([key, text]) => (
          <option key={key} value={key}>
            {text}
          </option>
        ))}
      </select>
    </label>
  );
}

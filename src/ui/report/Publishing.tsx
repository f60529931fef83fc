import { useState } from 'react';
import { PART_TITLES, REPORT_PARTS, type ReportPart } from '../../core/model/study/report-parts';
import type { Finding } from '../../core/text/report/readiness';
import type { Report } from './use-report';

const SIGNS: Readonly<Record<Finding['weight'], readonly [string, string]>> = {
  ready: ['●', 'ready'],
  weak: ['◐', 'weak'],
  missing: ['○', 'missing'],
};

/** What is ready and what is missing before publishing, each with the way to where it is mended. */
export function Readiness({
  findings,
  studyId,
}: {
  findings: readonly Finding[];
  studyId: string;
}) {
  const open = findings.filter(({ weight }) => weight !== 'ready');
  const ready = findings.filter(({ weight }) => weight === 'ready');
  return (
    <section className="mb-3 sheet px-3 py-2" aria-labelledby="readiness">
      <h2 id="readiness" className="font-semibold">
        Before publishing{' '}
        <small className="font-normal text-ink-2">
          {ready.length} of {findings.length} ready
        </small>
      </h2>
      <ul className="mt-1 text-xs">
        {[...open, ...ready].map(({ key, weight, text, page, link }) => (
          <li key={key} className="flex gap-2 py-0.5">
            <span aria-hidden="true" className={weight === 'ready' ? 'text-plum' : 'text-warn'}>
              {SIGNS[weight][0]}
            </span>
            <span className="sr-only">{SIGNS[weight][1]}:</span>
            <span className={weight === 'ready' ? 'text-ink-2' : ''}>
              {text}{' '}
              {weight !== 'ready' && (
                <a href={`/studies/${studyId}/${page}`} className="underline">
                  {link}
                </a>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** By whom it is, who paid, which parts it has, what it leaves out. */
export function Publishing({ report }: { report: Report }) {
  const { settings } = report.page;
  const parts = settings.parts ?? REPORT_PARTS;
  const left = REPORT_PARTS.filter((part) => !parts.includes(part));
  const move = (part: ReportPart, by: number) =>
    void report.settle((now) => {
      const next = [...(now.parts ?? REPORT_PARTS)];
      const from = next.indexOf(part);
      const to = Math.max(0, Math.min(next.length - 1, from + by));
      next.splice(to, 0, ...next.splice(from, 1));
      return { parts: next };
    });
  const toggle = (part: ReportPart) => {
    const isOut = parts.includes(part);
    void report.settle((now) => {
      const others = (now.parts ?? REPORT_PARTS).filter((one) => one !== part);
      return { parts: isOut ? others : [...others, part] };
    });
  };
  return (
    <section className="mb-3 sheet px-3 py-2" aria-labelledby="publishing">
      <h2 id="publishing" className="mb-1 font-semibold">
        Who, and what is in it
      </h2>
      <Field
        label="Published by"
        value={settings.author ?? ''}
        most={200}
        onKeep={(author) => void report.settle(() => ({ author }))}
      />
      <Field
        label="Disclosure: who paid, what was given, what was promised"
        value={settings.disclosure ?? ''}
        most={5000}
        rows={2}
        onKeep={(disclosure) => void report.settle(() => ({ disclosure }))}
      />
      <Check
        label="Photos"
        isOn={settings.with_photos !== false}
        onChange={(with_photos) => void report.settle(() => ({ with_photos }))}
      />
      <Check
        label="Initials, codes and file names stay in the data"
        isOn={settings.with_names === true}
        onChange={(with_names) => void report.settle(() => ({ with_names }))}
      />
      <ReportParts parts={parts} left={left} toggle={toggle} move={move} />
    </section>
  );
}

interface ReportPartsProps {
  parts: readonly ReportPart[];
  left: readonly ReportPart[];
  toggle: (part: ReportPart) => void;
  move: (part: ReportPart, by: number) => undefined;
}

/** Which parts the report has, and in which order. */
function ReportParts({ parts, left, toggle, move }: ReportPartsProps) {
  return (
    <details className="mt-1 text-xs">
      <summary className="text-ink-2">
        Parts and their order: {parts.length} of {REPORT_PARTS.length}
      </summary>
      <ol className="mt-1">
        {[...parts, ...left].map((part, at) => {
          const isIn = parts.includes(part);
          return (
            <li key={part} className="flex items-center gap-1 py-0.5">
              <label className="flex min-h-[24px] flex-1 items-center gap-1">
                <input
                  type="checkbox"
                  className="m-[5px]"
                  checked={isIn}
                  onChange={() => toggle(part)}
                />
                {PART_TITLES[part]}
              </label>
              <button
                type="button"
                className="action px-1.5"
                disabled={!isIn || at === 0}
                aria-label={`${PART_TITLES[part]} up`}
                onClick={() => move(part, -1)}
              >
                ↑
              </button>
              <button
                type="button"
                className="action px-1.5"
                disabled={!isIn || at === parts.length - 1}
                aria-label={`${PART_TITLES[part]} down`}
                onClick={() => move(part, 1)}
              >
                ↓
              </button>
            </li>
          );
        })}
      </ol>
    </details>
  );
}

interface FieldProps {
  label: string;
  value: string;
  most: number;
  rows?: number;
  onKeep: (value: string | null) => void;
}

/** A text that is kept when it is left. */
function Field({ label, value, most, rows = 1, onKeep }: FieldProps) {
  const [text, setText] = useState(value);
  const keep = () => {
    if (text.trim() !== value) onKeep(text.trim() === '' ? null : text.trim());
  };
  const shared = {
    className: 'field block',
    value: text,
    maxLength: most,
    onBlur: keep,
    onChange: (event: { target: { value: string } }) => setText(event.target.value),
  };
  return (
    <label className="mb-1 block text-xs text-ink-2">
      {label}
      {rows > 1 ? <textarea rows={rows} {...shared} /> : <input {...shared} />}
    </label>
  );
}

interface CheckProps {
  label: string;
  isOn: boolean;
  onChange: (isOn: boolean) => void;
}

function Check({ label, isOn, onChange }: CheckProps) {
  return (
    <label className="flex min-h-[24px] items-center gap-1 text-xs">
      <input
        type="checkbox"
        className="m-[5px]"
        checked={isOn}
        onChange={(event) => onChange(event.target.checked)}
      />
      {label}
    </label>
  );
}

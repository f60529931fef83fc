import { CAUSES, inWords } from '../../../core/model/study';
import type { EnteredFinding } from '../../../contract/inspect';
import { GradeDisc } from '../../marks/GradeDisc';
import { GRADES } from './grades';
import type { Word } from './use-words';

interface FoundHereProps {
  word: Word;
  onChange: (findings: readonly EnteredFinding[] | null) => void;
}

/** What was said of the zone so far: its findings, each with its cause and a note. */
export function FoundHere({ word, onChange }: FoundHereProps) {
  if (word === undefined) return <p className="mt-3 text-ink-2">No findings in this zone yet.</p>;
  const change = (finding: EnteredFinding, more: Partial<EnteredFinding>) =>
    onChange(word.map((one) => (one === finding ? { ...one, ...more } : one)));
  return (
    <div className="mt-3">
      <h3 className="text-xs font-semibold text-ink-2">
        {word.length === 0 ? 'Said: clean' : 'Found here'}
      </h3>
      <ul>
        {word.map((finding) => (
          <li
            key={finding.defect}
            className="flex flex-wrap items-center gap-2 border-b border-line-soft py-1"
          >
            <GradeDisc grade={finding.grade} />
            <span className="min-w-44">
              {inWords(finding.defect)}{' '}
              <span className="text-ink-2">
                {finding.grade} {GRADES[finding.grade]?.word}
              </span>
            </span>
            <select
              className="field w-auto py-0.5 text-xs"
              aria-label={`Cause of ${inWords(finding.defect)}`}
              value={finding.cause ?? ''}
              onChange={(event) =>
                change(finding, {
                  cause: CAUSES.find((cause) => cause === event.target.value) ?? null,
                })
              }
            >
              <option value="">cause not known</option>
              {CAUSES.map((cause) => (
                <option key={cause}>{cause}</option>
              ))}
            </select>
            <input
              className="field min-w-32 flex-1 py-0.5 text-xs"
              aria-label={`Note on ${inWords(finding.defect)}`}
              placeholder="note"
              defaultValue={finding.note ?? ''}
              onBlur={(event) => {
                const note = event.target.value.trim() || null;
                if (note !== finding.note) change(finding, { note });
              }}
            />
            <button
              type="button"
              className="action text-xs"
              aria-label={`Remove ${inWords(finding.defect)}`}
              onClick={() => onChange(word.filter((one) => one !== finding))}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      <button type="button" className="mt-2 action text-xs" onClick={() => onChange(null)}>
        Not looked at after all
      </button>
    </div>
  );
}

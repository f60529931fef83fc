import type { AccessEntry } from '../../contract/access';
import { shortTime } from '../lib/format';

interface DoorLogProps {
  entries: readonly AccessEntry[];
  /** What those are called who did something, by how they are kept. */
  names: ReadonlyMap<string, string>;
}

/** What happened at the doors, a line each, the latest first. */
export function DoorLog({ entries, names }: DoorLogProps) {
  return (
    <ul>
      {entries.map((entry, at) => {
        const by = entry.actor === null ? null : (names.get(entry.actor) ?? entry.actor);
        return (
          <li
            key={at}
            className="flex flex-wrap items-baseline gap-x-3 border-b border-line-soft px-3 py-1"
          >
            <span className="font-mono text-xs whitespace-nowrap">{shortTime(entry.at)}</span>
            <span className="min-w-0 flex-1 basis-56">
              {entry.what} {entry.name && entry.name !== by && <b>{entry.name}</b>}{' '}
              <span className="text-xs text-ink-2">
                {[
                  by && `by ${by}`,
                  describeDetail(entry.detail),
                  entry.address && `from ${entry.address}`,
                ]
                  .filter(Boolean)
                  .join(', ')}
              </span>
            </span>
          </li>
        );
      })}
    </ul>
  );
}

/** What is known besides, in words. */
export function describeDetail(detail: Record<string, unknown>): string {
  const said = (name: string, words: (value: string) => string) => {
    const value = detail[name];
    return typeof value === 'string' || typeof value === 'number' ? [words(String(value))] : [];
  };
  return [
    ...said('how', (value) => value),
    ...said('role', (value) => `as ${value}`),
    ...said('from', (value) => `no longer ${value}`),
    ...said('to', (value) => `now ${value}`),
    ...said('days', (value) => `for ${value} days`),
    ...said('device', (value) => value),
  ].join(', ');
}

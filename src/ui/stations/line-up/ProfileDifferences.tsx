import { columnWords } from '../../../core/study/labels';
import { UnknownCell } from '../../marks/Unknown';
import { Leaving } from '../../kit/Leaving';

interface ProfileDifferencesProps {
  profiles: readonly { id: string; name: string; kind: string }[];
  settings: readonly { profile_id: string; key: string; value: string }[];
}

/** What the profiles set, the settings that differ first. */
export function ProfileDifferences({ profiles, settings }: ProfileDifferencesProps) {
  const byKey = new Map<string, Map<string, string>>();
  for (const { profile_id, key, value } of settings) {
    const values = byKey.get(key) ?? new Map<string, string>();
    values.set(profile_id, value);
    byKey.set(key, values);
  }
  const rows = [...byKey.entries()].map(([key, values]) => {
    const known = profiles.map((profile) => values.get(profile.id));
    const isDifferent = new Set(known.filter((value) => value !== undefined)).size > 1;
    return { key, known, isDifferent };
  });
  rows.sort((a, b) => Number(b.isDifferent) - Number(a.isDifferent) || (a.key < b.key ? -1 : 1));
  if (rows.length === 0) return null;
  return (
    <section className="min-w-0 sheet" aria-labelledby="profile-differences">
      <header className="border-b border-line px-3 py-2">
        <h2 id="profile-differences" className="font-semibold">
          What the profiles differ in
        </h2>
        <p className="text-xs text-ink-2">
          {rows.filter((row) => row.isDifferent).length} of {rows.length} known settings differ; a
          hatched cell is not known
        </p>
      </header>
      <Leaving>
        <table className="w-full text-xs">
          <thead>
            <tr className="border-b border-line">
              <th className="th">setting</th>
              {profiles.map((profile) => (
                <th key={profile.id} className="th text-right">
                  {profile.name} <span className="font-normal">{profile.kind}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr
                key={row.key}
                className={`border-b border-line-soft ${row.isDifferent ? 'font-medium' : 'text-ink-2'}`}
              >
                <th scope="row" className="px-2 py-1 text-left font-normal">
                  {row.isDifferent ? '≠ ' : '= '}
                  {columnWords(row.key)}
                </th>
                {row.known.map((value, at) =>
                  value === undefined ? (
                    <UnknownCell key={profiles[at]?.id} />
                  ) : (
                    <td key={profiles[at]?.id} className="px-2 text-right font-mono">
                      {value}
                    </td>
                  ),
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </Leaving>
    </section>
  );
}

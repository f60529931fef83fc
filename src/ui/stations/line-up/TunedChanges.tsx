import { columnWords } from '../../../core/model/study/labels';
import { Leaving } from '../../kit/Leaving';

interface TunedChangesProps {
  profiles: readonly { id: string; name: string; kind: string; parent: string | null }[];
  settings: readonly { profile_id: string; key: string; value: string }[];
}

/** What each tuned profile changes of its stock parent. */
export function TunedChanges({ profiles, settings }: TunedChangesProps) {
  const tuned = profiles.filter((profile) => profile.parent !== null);
  if (tuned.length === 0) return null;
  const valuesOf = (id: string | null) =>
    new Map(settings.filter((row) => row.profile_id === id).map((row) => [row.key, row.value]));
  return (
    <section className="min-w-0 sheet" aria-labelledby="tuned-changes">
      <header className="border-b border-line px-3 py-2">
        <h2 id="tuned-changes" className="font-semibold">
          What the tuned profiles change
        </h2>
      </header>
      <div className="grid gap-x-6 px-3 py-2 md:grid-cols-2">
        {tuned.map((profile) => {
          const own = valuesOf(profile.id);
          const stock = valuesOf(profile.parent);
          const keys = [...new Set([...stock.keys(), ...own.keys()])].sort();
          const changed = keys.filter((key) => own.get(key) !== stock.get(key));
          const parent = profiles.find((one) => one.id === profile.parent)?.name;
          return (
            <div key={profile.id} className="py-1">
              <p>
                <b>{profile.name}</b>{' '}
                <span className="text-xs text-ink-2">
                  {changed.length === 0
                    ? `sets nothing other than ${parent}`
                    : `${changed.length} of ${keys.length} known settings other than ${parent}`}
                </span>
              </p>
              <Leaving>
                <table className="w-full text-xs">
                  <tbody>
                    {changed.map((key) => (
                      <tr key={key} className="border-b border-line-soft">
                        <th scope="row" className="py-0.5 text-left font-normal">
                          {columnWords(key)}
                        </th>
                        <td className="text-right font-mono text-ink-2">
                          {stock.get(key) ?? 'not known'}
                        </td>
                        <td className="px-1 text-center" aria-label="becomes">
                          →
                        </td>
                        <td className="text-right font-mono font-medium">
                          {own.get(key) ?? 'not known'}
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </Leaving>
            </div>
          );
        })}
      </div>
    </section>
  );
}

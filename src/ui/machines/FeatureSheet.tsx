import type { MachineDossier } from '../../contract/workshop';
import { UnknownCell } from '../marks/Unknown';
import { Sheet } from './Sheet';

/** What the machine has, lacks or has at extra cost, beside the others. */
export function FeatureSheet({
  features,
  own,
}: Pick<MachineDossier, 'features'> & { own: string }) {
  const others = features.filter((one) => one.uid !== own);
  const mine = features.find((one) => one.uid === own);
  const shown = mine ? [mine, ...others] : others;
  const names = [...new Set(shown.flatMap((one) => Object.keys(one.states)))];
  return (
    <Sheet
      title="Features"
      about={mine ? 'beside the others' : ''}
      isEmpty={!mine}
      empty="What it has and lacks is not written down."
    >
      <table className="w-full">
        <thead>
          <tr className="border-b border-line">
            <th className="th">
              <span className="sr-only">feature</span>
            </th>
            {shown.map((one) => (
              <th key={one.uid} className={`th ${one.uid === own ? '' : 'font-normal'}`}>
                {one.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {names.map((name) => (
            <tr key={name} className="border-b border-line-soft">
              <th scope="row" className="px-2 py-1 text-left font-normal">
                {name}
              </th>
              {shown.map((one) => {
                const found = one.states[name];
                if (!found) return <UnknownCell key={one.uid} />;
                return (
                  <td key={one.uid} className="px-2 whitespace-nowrap">
                    {found.state === 'has'
                      ? '● has'
                      : found.state === 'lacks'
                        ? '○ lacks'
                        : `+ ${found.price ?? 'extra'}`}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </Sheet>
  );
}

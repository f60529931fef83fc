import { inWords } from '../../core/model/study';
import type { Defects } from '../../core/measures/surface';
import { GradeDisc } from '../marks/GradeDisc';
import { UnknownCell } from '../marks/Unknown';
import { Leaving } from '../kit/Leaving';

/** Which defect shows in which material, all contenders together. */
export function DefectMaterials({ materials }: Pick<Defects, 'materials'>) {
  const types = [...new Set(Object.values(materials).flatMap((row) => Object.keys(row)))].sort();
  const total = (defect: string) =>
    Object.values(materials[defect] ?? {}).reduce((sum, one) => sum + one.found, 0);
  const defects = Object.keys(materials).sort((a, b) => total(b) - total(a) || (a < b ? -1 : 1));
  return (
    <section className="min-w-0 sheet" aria-labelledby="defect-materials">
      <header className="border-b border-line px-3 py-2">
        <h2 id="defect-materials" className="font-semibold">
          Defect by material
        </h2>
        <p className="text-xs text-ink-2">specimens that show it, of those looked at; the worst</p>
      </header>
      {defects.length === 0 ? (
        <p className="px-3 py-2">Nothing was found on any part that was looked at.</p>
      ) : (
        <Leaving>
          <table className="w-full">
            <thead>
              <tr className="border-b border-line">
                <th className="th">defect</th>
                {types.map((type) => (
                  <th key={type} className="th text-right">
                    {type}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {defects.map((defect) => (
                <tr key={defect} className="border-b border-line-soft">
                  <th scope="row" className="px-2 py-1 text-left font-normal">
                    {inWords(defect)}
                  </th>
                  {types.map((type) => {
                    const own = materials[defect]?.[type];
                    return own ? (
                      <td key={type} className="px-2 text-right whitespace-nowrap">
                        <span className="font-mono">
                          {own.found} of {own.specimens}
                        </span>{' '}
                        <GradeDisc grade={own.worst} size={16} />
                        <span className="sr-only">worst {own.worst}</span>
                      </td>
                    ) : (
                      <UnknownCell key={type} why="not looked at" />
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </Leaving>
      )}
    </section>
  );
}

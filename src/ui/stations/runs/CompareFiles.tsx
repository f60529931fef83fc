import type { Stored } from '../../../contract/rows';
import type { AnyPrint } from './runs-model';

interface CompareFilesProps {
  studyId: string;
  print: AnyPrint;
  prints: readonly Stored<'prints'>[];
  titleOf: (print: AnyPrint) => string;
}

/** Opens the files of a print and of another print of the same artefact side by side. */
export function CompareFiles({ studyId, print, prints, titleOf }: CompareFilesProps) {
  const others = prints.filter(
    (one) => one.artefact_id === print.artefact_id && one.print_id !== print.print_id,
  );
  if (others.length === 0) return null;
  return (
    <label className="mt-2 flex flex-wrap items-center gap-2 text-xs text-ink-2">
      compare its sliced file with that of
      <select
        className="field w-auto"
        value=""
        onChange={(event) => {
          const pair = [print.print_id, event.target.value];
          const query = pair.map((id) => `print=${encodeURIComponent(id)}`).join('&');
          location.assign(`/studies/${studyId}/compare?${query}`);
        }}
      >
        <option value="">another print …</option>
        {others.map((one) => (
          <option key={one.print_id} value={one.print_id}>
            {titleOf(one)}
          </option>
        ))}
      </select>
    </label>
  );
}

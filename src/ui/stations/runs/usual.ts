import { instant } from '../../../core/model/study';
import type { Stored } from '../../../contract/rows';
import type { MachineFacts } from '../../../contract/runs';
import type { SlicedSummary } from '../../../contract/sliced-files';
import type { Values } from '../../records/use-record';
import { fromFile } from './print-file';
import type { RunCell } from './runs-model';

interface Known {
  prints: readonly Stored<'prints'>[];
  planned: readonly Stored<'planned'>[];
  files: readonly SlicedSummary[];
  materials: readonly { id: string }[];
  machineOf: Readonly<Record<string, string>>;
  machines: Readonly<Record<string, MachineFacts>>;
}

/** The print that a machine made last, by its start; those without one come first. */
function lastOf(prints: readonly Stored<'prints'>[]): Stored<'prints'> | undefined {
  const begun = ({ started_at }: Stored<'prints'>) =>
    started_at === null ? -Infinity : instant(started_at);
  return prints.reduce<Stored<'prints'> | undefined>(
    (last, print) => (last === undefined || begun(print) >= begun(last) ? print : last),
    undefined,
  );
}

/**
 * What the form of a print's start proposes: from the plan, from what this machine's own last print was made with,
 * and from the machine's record. Nothing comes from another machine.
 */
export function usualStart(cell: RunCell, known: Known): Values {
  const { prints, planned, files, materials, machineOf, machines } = known;
  const machine = machineOf[cell.contender];
  const own = prints.filter((print) => machineOf[print.contender_id] === machine);
  const same = lastOf(
    own.filter(
      (print) => print.contender_id === cell.contender && print.artefact_id === cell.artefact,
    ),
  );
  const last = lastOf(own);
  const plan = planned.find(
    (row) => row.artefact_id === cell.artefact && row.contender_id === cell.contender,
  );
  const facts = machine === undefined ? undefined : machines[machine];
  const toolpath = plan?.toolpath ?? same?.toolpath ?? null;
  const [only, another] = materials;
  return {
    material_id:
      same?.material_id ??
      plan?.material_id ??
      last?.material_id ??
      (another === undefined ? (only?.id ?? null) : null),
    firmware: firmwareNow(facts, last),
    plate: last?.plate ?? null,
    nozzle_mm: last?.nozzle_mm ?? facts?.nozzle_mm ?? null,
    speed_mode: last?.speed_mode ?? null,
    operator: last?.operator ?? null,
    estimate_s: same?.estimate_s ?? null,
    toolpath,
    ...fromFile(files, toolpath),
  };
}

/** The machine's firmware: of its last print, unless the record was changed since. */
function firmwareNow(
  facts: MachineFacts | undefined,
  last: Stored<'prints'> | undefined,
): string | null {
  const changed = facts?.firmware_at == null ? -Infinity : instant(facts.firmware_at);
  const printed = last?.started_at == null ? -Infinity : instant(last.started_at);
  return changed > printed
    ? (facts?.firmware ?? null)
    : (last?.firmware ?? facts?.firmware ?? null);
}

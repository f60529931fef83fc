import { quote } from '../study';
import { DESCRIPTOR, type Descriptor } from './descriptor';
import type { FaultList } from './fault';
import { cellOf, type Lookup } from './references';

/** Checks that the steps of a sweep are contenders of one machine, from the study's reference on. */
export function checkSweep({ vergleich }: Descriptor, lookup: Lookup, faults: FaultList): void {
  if (vergleich.intent !== 'sweep') return;
  const fault = (message: string) => faults.add(DESCRIPTOR, 1, '-', message);
  const { sweep, reference } = vergleich;
  if (!sweep) {
    fault('vergleich.sweep is missing: the intent "sweep" needs its setting and its steps');
    return;
  }
  const [first] = sweep.steps;
  const machineOf = (id: string | undefined) => cellOf(lookup.row('contenders', id), 'machine_id');
  const machine = machineOf(first?.contender_id);
  sweep.steps.forEach(({ contender_id }, at) => {
    const place = `vergleich.sweep.steps.${at}.contender_id (${quote(contender_id)})`;
    if (!lookup.row('contenders', contender_id)) {
      fault(`${place} is not among the contenders (contenders.csv)`);
    } else if (machine !== undefined && machineOf(contender_id) !== machine) {
      fault(
        `${place} is of another machine than the first step, which is ${quote(String(machine))}`,
      );
    }
  });
  if (first && reference !== first.contender_id) {
    fault(
      `vergleich.reference (${quote(reference)}) must be the first step of the sweep, ${quote(first.contender_id)}`,
    );
  }
}

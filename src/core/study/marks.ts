import type { Contender, Machine, Profile } from './tables';

/** How a contender is marked everywhere: a letter by machine, hollow for stock, solid for tuned. */
export interface ContenderMark {
  contender_id: string;
  /** Same letter = same machine. */
  letter: string;
  /** 0…7: the hue that helps; letter and fill carry the meaning. */
  hue: number;
  isTuned: boolean;
  /** What tells it from the machine's other contenders: stock, tuned, or its own words. */
  variant: string;
  machineName: string;
  profileName: string;
  label: string;
}

/** The marks of a line-up, in its order. After Z come AA, AB … */
export function contenderMarks(
  contenders: readonly Contender[],
  machines: readonly Machine[],
  profiles: readonly Profile[],
): ContenderMark[] {
  const machineNames = new Map(machines.map((row) => [row.machine_id, row.name]));
  const profileRows = new Map(profiles.map((row) => [row.profile_id, row]));
  const order = [...new Set(contenders.map((row) => row.machine_id))];
  return contenders.map((row) => {
    const at = order.indexOf(row.machine_id);
    const profile = profileRows.get(row.profile_id);
    const kindOf = ({ profile_id }: Contender) =>
      profileRows.get(profile_id)?.kind === 'tuned' ? 'tuned' : 'stock';
    // Several of one machine and kind, before and after a change or the steps of a setting: told
    // apart by primes, and by numbers where they are more than two.
    const alike = contenders.filter(
      (other) => other.machine_id === row.machine_id && kindOf(other) === kindOf(row),
    );
    const place = alike.indexOf(row);
    const machineName = machineNames.get(row.machine_id) ?? row.machine_id;
    const kind = kindOf(row);
    const tail = alike.length > 2 ? String(place + 1) : '′'.repeat(place);
    return {
      contender_id: row.contender_id,
      letter: letterOf(at) + tail,
      variant: alike.length === 1 ? kind : row.label.replace(machineName, '').trim() || kind,
      hue: at % 8,
      isTuned: profile?.kind === 'tuned',
      machineName,
      profileName: profile?.name ?? row.profile_id,
      label: row.label,
    };
  });
}

function letterOf(at: number): string {
  const letter = String.fromCharCode(65 + (at % 26));
  return at < 26 ? letter : letterOf(Math.floor(at / 26) - 1) + letter;
}

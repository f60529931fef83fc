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
  return contenders.map((row, index) => {
    const at = order.indexOf(row.machine_id);
    const profile = profileRows.get(row.profile_id);
    const isSame = (other: Contender) =>
      other.machine_id === row.machine_id && other.profile_id === row.profile_id;
    // One machine with one profile, before and after a change: told apart by primes.
    const earlier = contenders.slice(0, index).filter(isSame).length;
    const isAlone = contenders.filter(isSame).length === 1;
    const machineName = machineNames.get(row.machine_id) ?? row.machine_id;
    const kind = profile?.kind === 'tuned' ? 'tuned' : 'stock';
    return {
      contender_id: row.contender_id,
      letter: letterOf(at) + '′'.repeat(earlier),
      variant: isAlone ? kind : row.label.replace(machineName, '').trim() || kind,
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

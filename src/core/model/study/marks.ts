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

/**
 * The letter of each machine's badge: the one that it was given, else the next free one in the order of the
 * contenders' ids. It follows from the rows alone, so that a study, its report and its export show the same.
 *
 * @example lettersOf([{ contender_id: 'b', machine_id: 'm2' }, { contender_id: 'a', machine_id: 'm1' }], [])
 * // new Map([['m1', 'A'], ['m2', 'B']])
 */
export function lettersOf(
  contenders: readonly Pick<Contender, 'contender_id' | 'machine_id'>[],
  machines: readonly Pick<Machine, 'machine_id' | 'letter'>[],
): ReadonlyMap<string, string> {
  const letters = new Map<string, string>();
  const taken = new Set<string>();
  for (const { machine_id, letter } of [...machines].sort(by('machine_id'))) {
    if (letter === null || taken.has(letter)) continue;
    letters.set(machine_id, letter);
    taken.add(letter);
  }
  let next = 0;
  for (const { machine_id } of [...contenders].sort(by('contender_id'))) {
    if (letters.has(machine_id)) continue;
    while (taken.has(letterOf(next))) next += 1;
    letters.set(machine_id, letterOf(next));
    taken.add(letterOf(next));
  }
  return letters;
}

/** A letter that no machine of a study has yet: what a new machine is given. */
export function freeLetter(taken: Iterable<string>): string {
  const known = new Set(taken);
  let at = 0;
  while (known.has(letterOf(at))) at += 1;
  return letterOf(at);
}

/** `step-2` comes before `step-10`. */
const NATURAL = new Intl.Collator('en', { numeric: true });

/** Puts rows into the order of a column. */
const by =
  <Name extends string>(column: Name) =>
  (a: Record<Name, string>, b: Record<Name, string>) =>
    NATURAL.compare(a[column], b[column]) || (a[column] < b[column] ? -1 : 1);

/** The marks of a line-up, in its order. After Z come AA, AB … */
export function contenderMarks(
  contenders: readonly Contender[],
  machines: readonly Machine[],
  profiles: readonly Profile[],
): ContenderMark[] {
  const machineNames = new Map(machines.map((row) => [row.machine_id, row.name]));
  const profileRows = new Map(profiles.map((row) => [row.profile_id, row]));
  const letters = lettersOf(contenders, machines);
  const sorted = [...contenders].sort(by('contender_id'));
  return contenders.map((row) => {
    const letter = letters.get(row.machine_id) ?? 'A';
    const profile = profileRows.get(row.profile_id);
    const kindOf = ({ profile_id }: Contender) =>
      profileRows.get(profile_id)?.kind === 'tuned' ? 'tuned' : 'stock';
    // Several of one machine and kind, before and after a change or the steps of a setting: told
    // apart by primes, and by numbers where they are more than two.
    const alike = sorted.filter(
      (other) => other.machine_id === row.machine_id && kindOf(other) === kindOf(row),
    );
    const place = alike.indexOf(row);
    const machineName = machineNames.get(row.machine_id) ?? row.machine_id;
    const kind = kindOf(row);
    const tail = alike.length > 2 ? String(place + 1) : '′'.repeat(place);
    return {
      contender_id: row.contender_id,
      letter: letter + tail,
      variant: alike.length === 1 ? kind : row.label.replace(machineName, '').trim() || kind,
      hue: placeOf(letter) % 8,
      isTuned: profile?.kind === 'tuned',
      machineName,
      profileName: profile?.name ?? row.profile_id,
      label: row.label,
    };
  });
}

/** The place of a letter: A 0, Z 25, AA 26. */
const placeOf = (letter: string): number =>
  [...letter].reduce((place, sign) => 26 * place + sign.charCodeAt(0) - 64, 0) - 1;

function letterOf(at: number): string {
  const letter = String.fromCharCode(65 + (at % 26));
  return at < 26 ? letter : letterOf(Math.floor(at / 26) - 1) + letter;
}

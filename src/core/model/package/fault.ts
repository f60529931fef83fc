/** Something wrong with a package, and where. */
export interface Fault {
  /** Path inside the package. */
  file: string;
  /** Line of the file where the row begins; the header is line 1. */
  line: number;
  /** The column's name, or `-` where the fault is not in one cell. */
  column: string;
  message: string;
}

/** The most faults that are told one by one. */
export const FAULT_LIMIT = 200;

/** What a package's check found. */
export interface FaultReport {
  /** The first 200, by file, line and column. */
  faults: Fault[];
  /** How many there are in all. */
  faultCount: number;
  warnings: Fault[];
  /** How many warnings there are of each kind, by the place of the first. */
  warningKinds: WarningKind[];
}

/** Warnings of one kind in one file. */
export interface WarningKind {
  count: number;
  first: Fault;
  /** What is said of several: `files are not in the package`. */
  ofSeveral: string;
  /** What the first is about: the path, the column. */
  subject: string;
}

/** What warnings of one kind have in common. */
export interface KindOfWarning {
  ofSeveral: string;
  subject: string;
}

/** `file:line:column: message`, as the command line prints it. */
export const formatFault = (fault: Fault): string =>
  `${fault.file}:${fault.line}:${fault.column}: ${fault.message}`;

/** Where several warnings are, as their line begins; nothing where they are of files themselves. */
const placeOf = ({ file }: Fault, subject: string): string => (subject === file ? '' : `${file}: `);

/**
 * Warnings as the command line prints them: those of one kind in one file once, or each of them.
 *
 * @param isEach whether each is named
 */
export function warningLines(
  { warnings, warningKinds }: Pick<FaultReport, 'warnings' | 'warningKinds'>,
  isEach: boolean,
): string[] {
  if (isEach) return warnings.map((fault) => `warning: ${formatFault(fault)}`);
  return warningKinds.map(({ count, first, ofSeveral, subject }) =>
    count === 1
      ? `warning: ${formatFault(first)}`
      : `warning: ${placeOf(first, subject)}${count} ${ofSeveral}, the first ${subject}` +
        `${first.line > 1 ? ` (line ${first.line})` : ''}; --all names each`,
  );
}

/** Faults of one kind, of which the first are kept and all are counted. */
class KeptFaults {
  #kept: (Fault & { position: number })[] = [];
  #count = 0;

  get count(): number {
    return this.#count;
  }

  add(fault: Fault & { position: number }): void {
    this.#count += 1;
    this.#kept.push(fault);
    // What stands beyond the first ones is never told: a package of nothing but faults stays small.
    if (this.#kept.length >= MOST_HELD) this.#kept = inOrder(this.#kept).slice(0, FAULT_LIMIT);
  }

  first(): Fault[] {
    return inOrder(this.#kept)
      .slice(0, FAULT_LIMIT)
      .map(({ file, line, column, message }) => ({ file, line, column, message }));
  }
}

const MOST_HELD = 20 * FAULT_LIMIT;

/** Collects faults and warnings, and puts them in order at the end. */
export class FaultList {
  readonly #faults = new KeptFaults();
  readonly #warnings = new KeptFaults();
  readonly #kinds = new Map<string, WarningKind>();
  readonly #positions = new Map<string, ReadonlyMap<string, number>>();

  /** Says in which order a file has its columns. */
  setHeader(file: string, header: readonly string[]): void {
    const positions = new Map<string, number>();
    header.forEach((name, at) => {
      if (!positions.has(name)) positions.set(name, at);
    });
    this.#positions.set(file, positions);
  }

  add(file: string, line: number, column: string, message: string): void {
    this.#faults.add(this.#place({ file, line, column, message }));
  }

  warn(fault: Fault, { ofSeveral, subject }: KindOfWarning): void {
    this.#warnings.add(this.#place(fault));
    // A file that nobody names is a place of its own: those are told together.
    const key = subject === fault.file ? ofSeveral : `${fault.file}\n${ofSeveral}`;
    const known = this.#kinds.get(key);
    if (known) known.count += 1;
    else this.#kinds.set(key, { count: 1, first: fault, ofSeveral, subject });
  }

  get isEmpty(): boolean {
    return this.#faults.count === 0;
  }

  report(): FaultReport {
    return {
      faults: this.#faults.first(),
      faultCount: this.#faults.count,
      warnings: this.#warnings.first(),
      warningKinds: [...this.#kinds.values()].sort((a, b) => byPlace(a.first, b.first)),
    };
  }

  #place(fault: Fault): Fault & { position: number } {
    const position = this.#positions.get(fault.file)?.get(fault.column) ?? Number.MAX_SAFE_INTEGER;
    return { ...fault, position };
  }
}

/** By file, line and column; of one place in the order in which they were found. */
function inOrder<Placed extends Fault & { position: number }>(faults: readonly Placed[]): Placed[] {
  return [...faults].sort((a, b) => byPlace(a, b) || a.position - b.position);
}

function byPlace(a: Fault, b: Fault): number {
  if (a.file !== b.file) return a.file < b.file ? -1 : 1;
  return a.line - b.line;
}
